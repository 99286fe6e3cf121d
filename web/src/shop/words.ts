/** What each kind of tool is, said beside its name. */
export const ABOUT: Record<string, string> = {
  bevel_gauge: 'gauge on the sightline',
  tilting_table: 'drill press, table tilts',
  ramp: 'hinged ramp or sled',
  guide_block: 'block sawn to the angle',
  angle_guide: 'drill guide, tilting column',
  digital_gauge: 'gauge on the drill',
  opposite_leg: 'hand drill, by eye',
  protractor: 'between two sticks',
  mitre_saw: 'saw that swings',
  table_saw: 'saw in a table',
  band_saw: 'band saw',
  handsaw: 'handsaw, scribing block',
  hand_plane: 'plane, marking gauge',
  taper_jig: 'sled for tapers',
  router_table: 'router, for slots',
  tenon_cutter: 'cutter in a drill',
  tenon_jig: 'turned over a router bit',
}

/** What the scales of a tool with two of them are on. */
export const SCALE_NAMES: Record<string, string> = {
  'mitre_saw.scale': 'Swing at square',
  'mitre_saw.tilt': 'Blade at square',
  'table_saw.scale': 'Gauge at square',
  'table_saw.tilt': 'Blade at square',
  'band_saw.scale': 'Gauge at square',
  'band_saw.tilt': 'Table at square',
}

/** Sizes a tool may have, by their names in the shop's document. */
export const SIZES: [string, string][] = [
  ['base', 'Hinge to spacer'],
  ['height', 'Height of the block'],
  ['length', 'Between its stops'],
  ['cutter', 'Cutter'],
  ['bore', 'Tenon it leaves'],
  ['takes', 'Diagonal over that'],
  ['front', 'Hole in front'],
  ['behind', 'Hole behind'],
  ['reach', 'Good up to'],
  ['widest', 'Cuts as wide as'],
  ['tallest', 'Cuts as high as'],
  ['kerf', 'Kerf'],
]
