<template><main id="main" /></template>
