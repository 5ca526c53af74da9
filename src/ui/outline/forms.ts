/** Lines to start from, by what they are for; what stands there is read as it is typed. */
export const outlineForms: { group: string; lines: { text: string; what: string }[] }[] = [
  { group: 'steps', lines: [
    { text: 'START 0,0', what: 'where the walk begins' }, { text: 'LINE TO X 40', what: 'only what changes' }, { text: 'LINE BY 10,-5', what: 'from where it stands' }, { text: 'LINE L 20 A 30', what: 'length and angle' },
    { text: 'LINE TANGENT L 20', what: 'smoothly on' }, { text: 'ARC TO 10,10 R 10 CW', what: 'radius and end' }, { text: 'ARC TO 10,10 CENTRE 0,10', what: 'centre and end' }, { text: 'ARC TANGENT SWEEP 90 R 5', what: 'smoothly round' },
    { text: 'LINE TO ?,20', what: 'x open: found from the rest' }, { text: 'LINE TO X ⌀40', what: 'a diameter, for turned profiles' }, { text: 'CLOSE', what: 'a line home' },
  ] },
  { group: 'relations and dimensions', lines: [
    { text: 'HORIZONTAL 2', what: 'or VERTICAL' }, { text: 'PARALLEL 1 3', what: 'or PERPENDICULAR, EQUAL' }, { text: 'TANGENT 2 3', what: 'or CONCENTRIC' }, { text: 'SYMMETRIC P1 P2 ABOUT Y', what: '' }, { text: 'ON P2 X', what: 'a point on an element' },
    { text: 'DISTANCE P1 P3 20', what: 'or DX, DY' }, { text: 'ANGLE 1 2 60', what: '' }, { text: 'RADIUS 3 10', what: 'or DIAMETER, LENGTH' },
  ] },
  { group: 'shapes', lines: [
    { text: 'CIRCLE ⌀20 AT 0,0', what: '' }, { text: 'RECTANGLE 40 X 20 R5', what: 'CORNER: from its lower left' }, { text: 'SLOT 40 X 10', what: 'over all, or SLOT CENTRES' }, { text: 'POLYGON 6 AF 24', what: 'or AC' }, { text: 'STAR 5 OD 40 ID 18', what: '' },
    { text: 'RING OD 40 ID 30', what: '' }, { text: 'LINK ⌀20 AT 0,0 ⌀10 AT 30,0', what: 'two circles and their tangents' }, { text: 'SEGMENT ⌀40 HEIGHT 10', what: 'or CHORD' }, { text: 'TEXT "A 12" HEIGHT 6 MIDDLE AT 0,0', what: 'height of the capitals' }, { text: 'TEXT "GAUGE" HEIGHT 4 AROUND ⌀50', what: 'round a circle' },
  ] },
  { group: 'made from others', lines: [
    { text: 'OFFSET 2', what: 'BOTH: a band' }, { text: 'MIRROR Y KEEP', what: '' }, { text: 'REPEAT 10X', what: 'round the zero' }, { text: 'REPEAT GRID 3 2 BY 20 15 SKIP 5', what: '' }, { text: 'USE "outline"', what: '' }, { text: 'JOIN "outline"', what: 'or CUTOUT, OVERLAP' },
    { text: 'FACE TOP AFTER 1', what: 'the part’s own face, as it stands after a row' }, { text: 'FACE FLOOR OF 2', what: '' }, { text: 'EDGES MOUTH OF 2', what: 'or OUTER TOP AFTER 2' }, { text: 'SECTION Z 5 AFTER 1', what: '' },
  ] },
  { group: 'corners and chains', lines: [
    { text: 'ROUND 5 ALL', what: 'or INSIDE, OUTSIDE, AT P2 P3' }, { text: 'CHAMFER 1 ALL', what: '' }, { text: 'RELIEF 4 INSIDE', what: 'CORNER, WALL or BISECTOR' }, { text: 'FULLROUND P2 P3', what: 'the line between becomes an arc' },
    { text: 'TRIM AT 10,0', what: 'the piece there, between crossings' }, { text: 'EXTEND END AGAINST "outline"', what: 'or BY 5' }, { text: 'BREAK AT 10,0', what: '' }, { text: 'MEND .05', what: 'gaps up to .05' },
  ] },
];
