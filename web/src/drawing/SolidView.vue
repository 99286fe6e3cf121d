<script setup lang="ts">
import * as THREE from 'three'
import { OrbitControls } from 'three/addons/controls/OrbitControls.js'
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useTheme } from 'vuetify'

import type { Mesh } from '../api/types'
import { usePiece } from '../piece/store'

/** The piece's solids, turned with the pointer, the wheel, or the arrow keys. */
const props = defineProps<{ /** The solids, floor frame, mm. */ meshes: Mesh[] }>()
const store = usePiece()
const theme = useTheme()
const host = ref<HTMLDivElement>()
const failed = ref(false)

let renderer: THREE.WebGLRenderer | null = null
let controls: OrbitControls | null = null
let asked = 0
const scene = new THREE.Scene()
const camera = new THREE.PerspectiveCamera(32, 1, 10, 20000)
camera.up.set(0, 0, 1)
const piece = new THREE.Group()
let placed = false

/** A colour of the theme, so that the three lights hold here too. */
function colour(name: string): THREE.Color {
  const text = getComputedStyle(host.value ?? document.body).getPropertyValue(name)
  return new THREE.Color(text.trim() || '#888888')
}

function build(): void {
  for (const child of [...piece.children]) {
    piece.remove(child)
    const solid = child as THREE.Mesh
    solid.geometry.dispose()
    ;(solid.material as THREE.Material).dispose()
  }
  const wood = colour('--wood')
  const leg = colour('--leg')
  const ink = colour('--ink')
  const lit = colour('--measured')
  const warning = colour('--cut')
  scene.background = colour('--paper')
  for (const mesh of props.meshes) {
    const shape = new THREE.BufferGeometry()
    shape.setAttribute('position', new THREE.Float32BufferAttribute(mesh.points, 3))
    shape.setIndex(mesh.triangles)
    const flat = shape.toNonIndexed()
    flat.computeVertexNormals()
    const on = store.lit !== '' && store.lit === mesh.part
    const found = mesh.stuff === 'warning'
    const paint = found ? warning : on ? lit : mesh.stuff === 'top' ? wood : leg
    const stuff = new THREE.MeshLambertMaterial({
      color: paint,
      polygonOffset: true,
      polygonOffsetFactor: 1.5,
      polygonOffsetUnits: 4,
      // What was found inside the wood is seen through it.
      depthTest: !found,
    })
    piece.add(new THREE.Mesh(flat, stuff))
    const edges = new THREE.BufferGeometry()
    edges.setAttribute('position', new THREE.Float32BufferAttribute(mesh.points, 3))
    edges.setIndex(mesh.edges)
    piece.add(new THREE.LineSegments(edges, new THREE.LineBasicMaterial({ color: ink })))
    shape.dispose()
  }
  if (!placed && props.meshes.length) aim()
  draw()
}

/** Stand where the whole piece is seen, from the front right and a little above. */
function aim(): void {
  placed = true
  const box = new THREE.Box3().setFromObject(piece)
  const middle = box.getCenter(new THREE.Vector3())
  const size = box.getSize(new THREE.Vector3()).length()
  // As near and as far as it needs: the finer the depths, the cleaner the edges.
  camera.near = size * 0.1
  camera.far = size * 10
  camera.updateProjectionMatrix()
  if (controls) [controls.minDistance, controls.maxDistance] = [size * 0.7, size * 6]
  camera.position.set(middle.x + size * 0.75, middle.y - size * 1.5, middle.z + size * 0.6)
  controls?.target.copy(middle)
  controls?.update()
}

/** While it turns it is drawn once a pixel, so that it keeps up; at rest twice as finely. */
const TURNING = 1
const AT_REST = 2
const SETTLE_MS = 180
let settling = 0

/** Drawn only when something changed: nothing moves by itself. */
function draw(): void {
  cancelAnimationFrame(asked)
  clearTimeout(settling)
  asked = requestAnimationFrame(() => paint(TURNING))
  settling = window.setTimeout(() => paint(AT_REST), SETTLE_MS)
}
function paint(fineness: number): void {
  if (!renderer) return
  if (renderer.getPixelRatio() !== fineness) renderer.setPixelRatio(fineness)
  renderer.render(scene, camera)
}

function fit(): void {
  const room = host.value?.getBoundingClientRect()
  if (!room || !renderer || !room.width || !room.height) return
  renderer.setSize(room.width, room.height, false)
  camera.aspect = room.width / room.height
  camera.updateProjectionMatrix()
  draw()
}
const watcher = new ResizeObserver(fit)

const TURNS: Record<string, [number, number]> = {
  ArrowLeft: [-0.12, 0],
  ArrowRight: [0.12, 0],
  ArrowUp: [0, -0.1],
  ArrowDown: [0, 0.1],
}
function key(event: KeyboardEvent): void {
  const by = TURNS[event.key]
  if (!by || !controls) return
  event.preventDefault()
  const away = camera.position.clone().sub(controls.target)
  const round = new THREE.Spherical().setFromVector3(new THREE.Vector3(away.x, away.z, -away.y))
  round.theta += by[0]
  round.phi = Math.min(Math.PI - 0.05, Math.max(0.05, round.phi + by[1]))
  const turned = new THREE.Vector3().setFromSpherical(round)
  camera.position.copy(controls.target).add(new THREE.Vector3(turned.x, -turned.z, turned.y))
  controls.update()
  draw()
}

onMounted(() => {
  try {
    renderer = new THREE.WebGLRenderer({ antialias: false, preserveDrawingBuffer: true })
  } catch {
    failed.value = true
    return
  }
  renderer.setPixelRatio(TURNING)
  renderer.domElement.setAttribute('aria-hidden', 'true')
  host.value?.append(renderer.domElement)
  controls = new OrbitControls(camera, renderer.domElement)
  controls.addEventListener('change', draw)
  const sky = new THREE.HemisphereLight(0xffffff, 0xb8a88c, 2.2)
  sky.position.set(0, 0, 1)
  const lamp = new THREE.DirectionalLight(0xffffff, 1.3)
  lamp.position.set(-400, -700, 900)
  scene.add(sky, lamp, piece)
  if (host.value) watcher.observe(host.value)
  build()
  fit()
})
onBeforeUnmount(() => {
  watcher.disconnect()
  cancelAnimationFrame(asked)
  clearTimeout(settling)
  controls?.dispose()
  renderer?.dispose()
})
watch(() => [props.meshes, store.lit, theme.global.name.value], build)
</script>

<template>
  <div
    ref="host"
    class="solid"
    tabindex="0"
    role="application"
    aria-label="The piece in the round: turn it with the arrow keys, or drag"
    data-solid
    @keydown="key"
  >
    <p v-if="failed" class="none">
      This machine cannot draw it in the round. The drawings from the front, the side and above show
      the same piece.
    </p>
  </div>
</template>

<style scoped>
.solid {
  min-height: 260px;
  position: relative;
  overflow: hidden;
}
.solid :deep(canvas) {
  display: block;
  width: 100%;
  height: 100%;
}
.none {
  padding: 4rem 2rem;
  text-align: center;
}
</style>
