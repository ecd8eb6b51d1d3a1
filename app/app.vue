<template><div>Nine Ripples</div></template>
