<template>
  <!-- A chip that acts when it is pressed: it goes to what it names, or leaves it out. -->
  <button type="button" class="chip"><slot></slot></button>
</template>
