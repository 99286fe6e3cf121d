<script setup lang="ts">
/** What the app does, in three drawings, where nothing hangs yet; and a finished piece to look into. */
defineEmits<{
  /** A new piece is wanted. */ begin: []
  /** The example is wanted. */ example: []
}>()
</script>

<template>
  <div class="empty">
    <p>Nothing hangs here yet. What goes on here, in three steps:</p>
    <ol>
      <li>
        <svg viewBox="0 0 200 130" role="img" aria-label="A bevel gauge set to an angle">
          <path class="wood" d="M20 96 H180 V112 H20 Z" />
          <path class="line" d="M100 96 V30" stroke-dasharray="5 4" />
          <path class="tool" d="M58 90 h84 v8 h-84 z" />
          <path class="blade" d="M98 92 L126 24 L132 27 L105 95 Z" />
          <path class="arc" d="M100 46 A50 50 0 0 1 119 50" />
        </svg>
        <p><b>Set.</b> Choose how the legs splay. The app says what to set on your own tools.</p>
      </li>
      <li>
        <svg viewBox="0 0 200 130" role="img" aria-label="A bit boring a seat along the sightline">
          <path class="wood" d="M20 74 H180 V104 H20 Z" />
          <path class="hole" d="M95 74 L83 104 H99 L111 74 Z" />
          <path class="blade" d="M99 66 L121 12 L129 15 L107 70 Z" />
          <path class="line" d="M129 5 L78 118" stroke-dasharray="8 3 2 3" />
        </svg>
        <p><b>Cut.</b> One card a cut: how the work lies, which way it leans, where to stop.</p>
      </li>
      <li>
        <svg viewBox="0 0 200 130" role="img" aria-label="A rod in the hole, read with a gauge">
          <path class="wood" d="M20 96 H180 V118 H20 Z" />
          <path class="rod" d="M92 110 L126 16 L133 19 L99 112 Z" />
          <rect class="tool" x="104" y="40" width="44" height="24" transform="rotate(20 126 52)" />
          <text x="118" y="60" transform="rotate(20 126 52)">14.2</text>
        </svg>
        <p>
          <b>Prove.</b> Read what came of it. What is not cut yet is worked out again from there.
        </p>
      </li>
    </ol>
    <p class="do">
      <v-btn color="primary" variant="flat" @click="$emit('begin')">Begin a piece</v-btn>
      <button class="plain word" type="button" data-example @click="$emit('example')">
        look into a finished example
      </button>
      <span class="quiet">It hangs like any other and can be taken off again.</span>
    </p>
  </div>
</template>

<style scoped>
.empty {
  display: grid;
  gap: 1.5rem;
  padding: 2rem 0;
}
ol {
  list-style: none;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 2rem;
}
svg {
  width: 100%;
  max-width: 300px;
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.6;
}
.wood {
  fill: var(--wood);
}
.tool {
  fill: var(--sheet);
}
.blade,
.rod {
  fill: var(--paper);
  stroke: var(--measured);
}
.hole {
  fill: var(--paper);
  stroke: var(--cut);
}
.arc {
  stroke: var(--cut);
  stroke-width: 2.4;
}
.line {
  stroke-width: 1;
}
text {
  font-size: 14px;
  fill: var(--ink);
  stroke: none;
}
.do {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0.4rem 1.2rem;
}
</style>
