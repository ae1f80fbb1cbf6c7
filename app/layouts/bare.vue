<template><slot /></template>
