/** What holds the food on the Stove, in a box of 300 x 220 cut open to show its inside. Our own drawings, one a heat. */
export interface Vessel {
  /** Outline, and what belongs to it. */
  body: string
  /** What glows while it is on. */
  glow: string
  /** What is taken off to get at the food. */
  lid?: string
  /** Where the lid lies then. */
  lidOff?: string
  /** Liquid in it. */
  liquid?: string
  /** Food around its middle: centre, floor, and breadth for all pieces. */
  food: { x: number; floor: number; breadth: number }
  /** What is drawn around the food. */
  around?: string
  /** Where steam leaves. */
  steam: { x: number; y: number }
  /** Height of the element, where the food hangs below it at a distance that is known. */
  elementY?: number
}

const OVEN = 'M20 10h260q8 0 8 8v184q0 8-8 8H20q-8 0-8-8V18q0-8 8-8z'
const BOTTOM = 'M44 196h212'
const ZIGZAG =
  'M44 30l12 14 12-14 12 14 12-14 12 14 12-14 12 14 12-14 12 14 12-14 12 14 12-14 12 14 12-14 12 14 12-14'
const POT = 'M50 84v98q0 22 22 22h156q22 0 22-22V84M50 104H28v18h22M250 104h22v18h-22'
const POT_FOOD = { x: 150, floor: 184, breadth: 160 }
const FRYER = 'M60 14h180q18 0 18 18v156q0 20-20 20H62q-20 0-20-20V32q0-18 18-18zM42 100h216'
const FAN = 'M150 56m-24 0a24 24 0 1 0 48 0a24 24 0 1 0-48 0M150 56l18-14M150 56l-18-14M150 56v24'
const GRATE = 'M30 116h240M54 116v8M86 116v8M118 116v8M150 116v8M182 116v8M214 116v8M246 116v8'
const FLAMES =
  'M80 176q-18-18 0-44q18 26 0 44zM150 176q-18-18 0-44q18 26 0 44zM220 176q-18-18 0-44q18 26 0 44z'
const oven = (rack: number, glow: string): Vessel => ({
  body: `${OVEN}M28 ${rack}h244M28 ${rack + 8}h244`,
  glow,
  food: { x: 150, floor: rack, breadth: 190 },
  steam: { x: 232, y: 12 },
})

const fryer = (glow: string): Vessel => ({
  body: `${FRYER}M70 176h160M70 176v14M110 176v14M150 176v14M190 176v14M230 176v14`,
  glow,
  food: { x: 150, floor: 176, breadth: 150 },
  steam: { x: 232, y: 14 },
})

const VESSELS: Record<string, Vessel> = {
  pressure: {
    body: POT,
    glow: 'M84 214h132',
    lid: 'M40 84h220M52 84q6-44 98-44t98 44M128 40h44v-10h-44z',
    lidOff: 'M286 204q-20-60 0-116M278 90l14 112',
    liquid: 'M54 188h192',
    food: POT_FOOD,
    steam: { x: 196, y: 40 },
  },
  braise: {
    ...oven(186, BOTTOM),
    around: 'M60 110h180l-10 64q-2 10-14 10H84q-12 0-14-10z',
    lid: 'M58 110q6-34 92-34t92 34zM142 76v-10h16v10',
    food: { x: 150, floor: 180, breadth: 130 },
  },
  foil: {
    ...oven(168, BOTTOM),
    around: 'M48 166l14-50 16 10 20-14 20 14 20-14 22 14 20-14 20 14 18-14 16 10 18 44z',
    food: { x: 150, floor: 160, breadth: 130 },
  },
  low_oven: oven(140, BOTTOM),
  air_fry: fryer(FAN),
  smoke: {
    body: 'M30 118q0-84 120-84t120 84q0 72-120 72T30 118zM216 44V8h26v46M84 184l-16 30M216 184l16 30M40 124h220',
    glow: 'M96 168q-12-14 0-26q12 12 0 26zM122 172q-10-12 0-22q10 10 0 22z',
    food: { x: 160, floor: 122, breadth: 150 },
    steam: { x: 229, y: 6 },
  },
  bath: {
    body: 'M34 50v138q0 18 18 18h196q18 0 18-18V50',
    glow: 'M226 24h24v120h-24zM238 144v12',
    liquid: 'M38 74q24-10 48 0t48 0 48 0 48 0 32 0',
    around: 'M78 88h120v108H78z',
    food: { x: 138, floor: 186, breadth: 100 },
    steam: { x: 120, y: 56 },
  },
  simmer: {
    body: POT,
    glow: 'M84 214h132',
    lid: 'M40 84h220M60 84q6-26 90-26t90 26M142 58v-12h16v12',
    lidOff: 'M286 204q-14-60 0-116M280 90l10 112',
    liquid: 'M54 118q24-8 48 0t48 0 48 0 48 0',
    food: POT_FOOD,
    steam: { x: 150, y: 44 },
  },
  slow: {
    body: 'M36 84h228l-12 104q-2 18-22 18H70q-20 0-22-18zM24 96h14M262 96h14',
    glow: 'M150 192m-9 0a9 9 0 1 0 18 0a9 9 0 1 0-18 0M150 192l5-5',
    lid: 'M40 84q6-38 110-38t110 38zM142 46v-12h16v12',
    lidOff: 'M286 204q-16-60 0-116M280 90l10 112',
    liquid: 'M48 116h204',
    food: { x: 150, floor: 172, breadth: 160 },
    steam: { x: 150, y: 40 },
  },
  broiler: { ...oven(140, ZIGZAG), body: OVEN, elementY: 42 },
  oven: oven(140, `${BOTTOM}M44 26h212M52 70q-8 16 0 32t0 32M248 70q8 16 0 32t0 32`),
  air_fryer: fryer(`${FAN}M64 88q12-8 24 0M212 88q12-8 24 0`),
  crisping_lid: {
    body: `${POT}M62 176h176`,
    glow: 'M74 58l10 14 10-14 10 14 10-14 10 14 10-14 10 14 10-14 10 14 10-14 10 14 10-14 10 14 10-14 10 14',
    lid: 'M40 84h220M50 84V44q0-14 14-14h172q14 0 14 14v40',
    lidOff: 'M296 200V88q0-10-10-10h-8v132',
    food: { x: 150, floor: 176, breadth: 150 },
    steam: { x: 226, y: 30 },
  },
  grill: {
    body: `${GRATE}M40 124l18 80h184l18-80`,
    glow: FLAMES,
    food: { x: 150, floor: 116, breadth: 200 },
    steam: { x: 150, y: 60 },
  },
  charcoal: {
    body: `${GRATE}M32 124q6 76 118 76t118-76M86 186l-18 28M214 186l18 28`,
    glow: 'M96 160a12 12 0 1 0 0.1 0M128 168a13 13 0 1 0 0.1 0M160 160a12 12 0 1 0 0.1 0M192 166a12 12 0 1 0 0.1 0M144 146a11 11 0 1 0 0.1 0M176 146a11 11 0 1 0 0.1 0',
    food: { x: 150, floor: 116, breadth: 200 },
    steam: { x: 150, y: 60 },
  },
  contact: {
    body: 'M34 150h232v22q0 18-18 18H52q-18 0-18-18z',
    glow: 'M54 140h192M54 92h192',
    lid: 'M34 82V62q0-18 18-18h196q18 0 18 18v20zM270 76l22-48',
    lidOff: 'M262 140l24-118q2-10 12-8',
    food: { x: 150, floor: 136, breadth: 170 },
    steam: { x: 80, y: 44 },
  },
}

/** The drawing of a heat; none for a heat that nobody drew. */
export const vesselOf = (heat: string): Vessel | undefined => VESSELS[heat]

/** Where the food lies under an element: nearer for a high rack, within the oven. */
export function rackFloor(vessel: Vessel, rackMm: number | null): number {
  if (rackMm === null || vessel.elementY === undefined) return vessel.food.floor
  const [near, far, room] = [50, 350, 90]
  const share = Math.min(1, Math.max(0, (rackMm - near) / (far - near)))
  return vessel.elementY + 60 + share * room
}
