<template>
  <div class="contents"><slot /><ConfirmDialog /></div>
</template>
