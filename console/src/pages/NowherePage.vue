<template>
  <div class="page">
    <div class="empty">
      <p>There is no page at this address.</p>
      <RouterLink to="/">Go home</RouterLink>
    </div>
  </div>
</template>
