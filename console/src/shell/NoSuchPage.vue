<template>
  <div class="page">
    <h1>There is no such page</h1>
    <p>
      The address may be mistyped, or what it showed was removed.
      <RouterLink to="/now">To what is going on now</RouterLink>
    </p>
  </div>
</template>
