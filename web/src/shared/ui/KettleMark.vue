<template>
  <svg viewBox="0 0 32 32" width="32" height="32" aria-hidden="true">
    <path
      d="M8 26h14l2-11c.4-3-3-5.500-9-5.500S6 12 6 15zM23 15.500l5-4M11 9c0-5 8-5 8 0"
      fill="none"
      stroke="currentColor"
      stroke-width="2.200"
      stroke-linecap="round"
      stroke-linejoin="round"
    />
    <circle cx="15" cy="18" r="3" fill="#f08a4b" />
  </svg>
</template>
