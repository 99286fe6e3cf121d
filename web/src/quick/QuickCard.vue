<script setup lang="ts">
import type { QuickSetting, View } from '../api/types'
import Drawing from '../drawing/Drawing.vue'
import FigureText from '../fields/FigureText.vue'
import WhyFigure from '../fields/WhyFigure.vue'

/** One tool's answer to a bench question. */
defineProps<{
  /** The setting. */
  setting: QuickSetting
  /** Its picture. */
  picture?: View | undefined
}>()
</script>

<template>
  <article :data-quick-card="setting.way">
    <h2>{{ setting.tool }}</h2>
    <div class="picture"><Drawing v-if="picture" :view="picture" :letter="12" /></div>
    <p class="line">
      <span>{{ setting.setting_name }}</span>
      <FigureText class="big" :text="setting.setting.text" />
    </p>
    <p v-if="setting.note" class="reach">{{ setting.note }}</p>
    <div class="figs">
      <WhyFigure
        v-for="figure in setting.jig"
        :key="figure.key"
        :figure="figure"
        :bare="figure.label === setting.setting_name"
      />
    </div>
  </article>
</template>

<style scoped>
article {
  display: grid;
  gap: 0.25rem;
  align-content: start;
  border-top: 1.5px solid var(--ink);
  padding-top: 0.3rem;
}
.picture {
  height: 185px;
}
.line {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}
.big {
  font-size: 1.9rem;
  font-weight: 700;
  color: var(--cut);
}
.reach {
  border-left: 6px solid var(--caution);
  padding-left: 8px;
  font-size: 0.88rem;
}
</style>
