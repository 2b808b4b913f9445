/** What a sheet looks like, for those who see one for the first time. */
export const example = [
  'U1         HX9040-2 8431',
  'U40-U48    41256-15 8512',
  'U20,U22    27128-25 8533 @socket',
  'BT1        NiCd 3.6V 60mAh !leaking: green crust on the anode',
].join('\n')

/** How the sheet of an outside may begin. */
export const exteriorExample = `== front
badge     model "Meridian 2"
drive     5.25 inch, half height
== rear
plate     220-240 V 50 Hz 0.6 A earth
label     serial "TV2-00817"
port      D-sub 25 female "SERIAL" use: printer
missing   blanking plate, slot 4
== underside
foot      3 of 4
weight    11.4 kg`
