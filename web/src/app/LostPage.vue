<template>
  <div class="page">
    <h1>Nothing here.</h1>
    <p>This address leads nowhere. <RouterLink to="/">See what is next</RouterLink></p>
  </div>
</template>
