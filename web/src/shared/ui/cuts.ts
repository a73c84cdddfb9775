/** Our own line drawings of the cuts, in a box of 64 x 60: flesh, what is drawn on it, and its raw colour. */
export interface CutDrawing {
  flesh: string
  bone: string
  tone: string
}

const DRAWINGS: Record<string, CutDrawing> = {
  'beef-short-ribs': {
    flesh: 'M8 30c0-8 6-13 14-13h22c8 0 13 5 13 12v8c0 7-5 11-12 11H20c-7 0-12-4-12-11z',
    bone: 'M8 42h49M20 17v-6h7v6M37 17v-6h7v6',
    tone: '#9c4a43',
  },
  'pork-ribs': {
    flesh: 'M6 24q27-13 52 0v20q-26 12-52 0z',
    bone: 'M14 20v28M23 17v34M32 16v36M41 17v34M50 20v28',
    tone: '#c47b70',
  },
  'pork-half-racks': {
    flesh: 'M5 16q26-8 54 0v13q-27 8-54 0zM5 37q26-8 54 0v13q-27 8-54 0z',
    bone: 'M13 13v19M22 11v22M32 11v22M42 11v22M51 13v19M13 34v19M22 32v22M32 32v22M42 32v22M51 34v19',
    tone: '#c47b70',
  },
  'pork-rack': {
    flesh: 'M3 24q28-9 58 0v17q-29 9-58 0z',
    bone: 'M9 21v23M14 20v25M19 19v27M24 18v29M30 18v29M35 18v29M41 18v29M46 19v27M51 20v25M56 21v23',
    tone: '#c47b70',
  },
  'pork-shoulder': {
    flesh: 'M9 20l20-8 25 7 4 22-16 13-25-2-9-14z',
    bone: 'M20 26q12 6 26-2M24 40q10-5 20 1',
    tone: '#c9867b',
  },
  'beef-cheek': {
    flesh: 'M10 36c-2-14 12-24 26-21 14 2 21 13 17 24-3 9-12 13-23 12-11 0-18-6-20-15z',
    bone: 'M22 26q9 12 22 5M20 40q10 2 22 0',
    tone: '#8c3f3d',
  },
  'beef-brisket': {
    flesh: 'M7 38c0-10 8-18 22-20 14-2 27 2 28 11 1 10-8 20-25 21-14 1-25-2-25-12z',
    bone: 'M10 33q20-12 46-5M18 42q16-8 34-5M22 24l-4 8M36 22l-3 8M47 24l-3 8',
    tone: '#95473f',
  },
  'pork-belly': {
    flesh: 'M8 18h48q3 0 3 4v20q0 5-4 5H9q-4 0-4-5V22q0-4 3-4z',
    bone: 'M6 26q26 5 53 0M6 33q26 5 53 0M6 40q26 4 53 0M14 18l6 8M28 18l6 9M42 18l6 8',
    tone: '#d39a8b',
  },
  'pork-loin': {
    flesh: 'M8 26q2-9 14-10l26 1q10 1 10 12v6q0 9-10 10l-28 1q-10 0-12-10z',
    bone: 'M10 22q20-6 44-1M20 31q14 4 28-1M22 38q10 2 20 0',
    tone: '#d9a79a',
  },
  'cooked-ham': {
    flesh: 'M11 38C8 22 19 10 33 11c13 1 21 11 19 23-2 11-12 17-23 16-10 0-16-4-18-12z',
    bone: 'M17 28l20-14M16 36l30-22M20 43l31-22M24 18l22 24M17 25l22 23M35 13l15 17',
    tone: '#d18f86',
  },
  'lamb-breast': {
    flesh: 'M7 26q14-14 50-8l-3 28q-22 9-44 2z',
    bone: 'M18 23q2 14 0 26M29 19q3 16 1 31M40 18q3 15 2 30',
    tone: '#b9665f',
  },
  'lamb-shanks': {
    flesh: 'M10 44c-5-9 4-22 16-25 7-2 12 3 12 8 0 11-12 23-20 23-4 0-6-2-8-6z',
    bone: 'M36 22l14-10a5 5 0 1 1 6 6L42 30',
    tone: '#a9544e',
  },
  'turkey-drumsticks': {
    flesh: 'M9 40c-4-11 7-25 20-27 9-1 14 6 11 14-4 11-15 21-23 20-4 0-6-3-8-7z',
    bone: 'M37 28l13 13a5 5 0 1 1-5 6L32 35',
    tone: '#c99060',
  },
  'chicken-thighs': {
    flesh: 'M12 38c-4-12 8-25 22-25 12 0 21 8 19 20-2 11-13 17-24 16-9 0-15-4-17-11z',
    bone: 'M22 30q9-9 21-4M24 40q8 4 18-2',
    tone: '#dba873',
  },
  'chicken-drumsticks': {
    flesh: 'M12 40c-3-9 5-21 16-23 8-1 13 5 11 12-3 10-12 19-20 18-4 0-6-3-7-7z',
    bone: 'M37 27l11 10a4 4 0 1 1-4 5L33 33M20 38q2-8 9-11',
    tone: '#dba873',
  },
  'chicken-wings': {
    flesh:
      'M8 24c4-8 14-10 20-5 5 4 8 8 14 6 8-3 15 1 15 8-1 9-13 14-23 9-5-3-9-3-14-1-9 2-16-8-12-17z',
    bone: 'M14 28q8-6 14 1t14 2M48 30q4 2 4 6',
    tone: '#e0b482',
  },
  octopus: {
    flesh:
      'M20 30c-3-13 4-20 12-20s15 7 12 20c5 8 12 8 14 14-7 4-11-3-15-6 0 7 2 12-2 16-4-3-5-9-6-13-1 5-2 10-6 13-5-3-3-9-3-16-5 3-8 9-15 6 3-6 14-6 19-14z',
    bone: 'M27 22v2M37 22v2',
    tone: '#a8627b',
  },
  cauliflower: {
    flesh: 'M12 32a9 9 0 0 1 6-14 11 11 0 0 1 18-5 10 10 0 0 1 16 9 9 9 0 0 1 0 15c-3 8-34 8-40-5z',
    bone: 'M20 42l6 11h14l6-11M32 44v9M19 24q4-4 8 0q4-5 9-1q5-3 8 3',
    tone: '#e9e2c8',
  },
  jackfruit: {
    flesh: 'M10 46q2-22 22-34 20 12 22 34-22 9-44 0z',
    bone: 'M32 14v34M22 24l4 24M42 24l-4 24M15 36l4 13M49 36l-4 13',
    tone: '#e6d3a1',
  },
  celeriac: {
    flesh: 'M13 34c-2-12 8-20 19-20s21 8 19 20c-2 11-10 17-19 17s-17-6-19-17z',
    bone: 'M24 16l-4-8M32 14v-8M40 16l4-8M18 44l-5 7M27 51l-2 7M38 51l2 6M46 44l5 6M32 22q9 3 11 12',
    tone: '#d8c9a0',
  },
}
// A cut without a drawing of its own is an empty plate, not another cut.
const PLATE: CutDrawing = {
  flesh: 'M6 32a26 17 0 1 0 52 0a26 17 0 1 0 -52 0z',
  bone: 'M16 32a16 9 0 1 0 32 0a16 9 0 1 0 -32 0z',
  tone: 'none',
}

export const cutDrawing = (cut: string): CutDrawing => DRAWINGS[cut] ?? PLATE
