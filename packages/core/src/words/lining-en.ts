/** What is said of linings, boxes and floors. */
export const LINING_EN = {
  'surface.left': 'Left wall',
  'surface.front': 'Front end',
  'surface.rear': 'Rear end',
  'surface.right': 'Right wall',
  'surface.ceiling': 'Ceiling',
  'lining.film':
    '{surface}: {material}, {thickness} thick, bears no hand between supports: it is no lining by itself. Take a thicker one.',
  'lining.tooHigh':
    '{surface}: no sheet on sale is as long as the {high} from edge to edge. Line it with strips or boards, or add a longer sheet.',
  'lining.sliver.sheets':
    '{surface}: no seams keep every panel and every leg beside an opening at {sliver} or more. Move a seam, or allow narrower pieces.',
  'lining.sliver.strips':
    '{surface}: no set-out keeps the first and last strip at {sliver} or more. Change the strips’ width, or allow narrower ones.',
  'lining.sliver.boards':
    '{surface}: no set-out keeps the first and last board at {sliver} or more. Allow narrower ones.',
  'lining.loose':
    '{surface}: nothing to fix to beside {name}. Lay battens, or glue in a block before the lining goes on.',
  'lining.offGone':
    '{surface}: {count} {count|piece|pieces} chosen to come off {count|is|are} not there any more, since the set-out changed. Choose again.',
  'lining.close':
    '{count} {count|joint lies|joints lie} nearer than {apart} to one of the row beside: supports elsewhere would make a piece longer than the {longest} there are, or a short end.',
  'lining.pending': '{surface}: {name} is not here yet. Frame its place and leave it open; the rest can go on.',
  'lining.bend':
    '{surface}: {material} bends to {least} at the tightest, the wall asks for {tightest}. Take a thinner sheet, turn the grain, or rip strips of {strip} or less.',
  'lining.lampSupport':
    '{name} sits on {support}: there is nothing to sink it into. The middle of the bay is {to} from the front.',
  'lining.lampAlong': '{name}: centred between its supports it would be {to} from the front.',
  'lining.lampRow': '{name}: on the middle of its row it would be at {to}.',
  'hatch.floor.noFrame':
    '{name} has no battens to be framed by: what lies under the board does not carry the edge of a lid. Lay battens, or leave it out.',
  'floor.trimLong':
    'The trim of the floor in {name} is {length} long; the longest bar is {longest}. Join it out of sight, or take a longer profile.',
  'floor.noTrimScrew':
    'The trims of the floor are to be screwed into its board, and nothing in the price book is between {least} and {most} long: glue them, or add a screw.',
  'floor.noUpperScrew':
    'The upper board is to be screwed to the one beneath, and nothing in the price book is between {least} and {most} long: glue it, or add a screw.',
  'hatch.floor.off': '{name}: the hatch does not lie wholly on the floor board.',
  'hatch.floor.large': '{name}: the hatch is larger than the floor board.',
  'hatch.floor.seam': '{name}: a seam of the board runs through the hatch; it is framed all round.',
  'hatch.floor.unit': '{name}: {unit} stands on the hatch, so it cannot be lifted.',
  'penetration.outside': '{name}: its hole goes {by} past the end of its surface. Read its place again, or move it.',
  'penetration.rib':
    '{name} would be drilled through {ribs}. A cut rib or bow carries nothing: move the hole between the ribs, or ask the maker before steel is cut.',
  'penetration.opening': '{name}: {clear} are left between its hole and {opening}; {apart} keep it from breaking out.',
  'penetration.seam':
    '{name}: a seam of the floor’s board runs through its hole. Move the hole or choose another way to cut the board: a seam there has nothing under it.',
  'penetration.edge':
    '{name}: {clear} are left between its hole and the edge of the floor’s board; {apart} keep it from breaking out.',
  'penetration.near':
    '{name}: {clear} are left between its hole and that of {other}; {apart} keep the board between them whole.',
  'penetration.board': '{name}: {part} stands over its hole. Move the one or the other, or notch the board.',
  'penetration.keepOut': '{name} would be drilled into {keepOut}.',
  'arch.box.thin.step': '{name}: the top is too thin to stand on over {span}. Take a thicker board or add a rail.',
  'arch.box.thin.seat': '{name}: the top is too thin to sit on over {span}. Take a thicker board or add a rail.',
  'arch.box.thin.store':
    '{name}: the top is too thin for what is stored on it over {span}. Take a thicker board, add a rail, or store less.',
  'corner.skin': '{name}: what is left standing must be thinner than the {thickness} of the board.',
  'corner.short': '{name}: each leg has to be {least} or longer for this radius.',
  'corner.crowded': '{name}: the cuts come too near each other. Take a wider radius or leave more standing.',
  'corner.grain':
    '{name}: the grain runs along the corner, and what is left standing will snap. Turn it round the bend.',
  'header.opening': '{name} hangs {amount} below the head of {opening}. Make it shorter, or clear less.',
  'header.off': '{name} lies outside the room: no board can be cut for it.',
  'curtain.noTrack': '{name}: a curtain is wanted, and there is no room for its track over the window.',
  'curtain.blocked':
    '{name}: at the height of its rail units leave no room for it from wall to wall. Hang it elsewhere, or over them.',
  'curtain.high': '{name}: its rail would be above the ceiling. Hang it lower, or elsewhere.',
  'lining.reserved.stops':
    '{name}: the ceiling stops in front of it. Hang it before or after; a batten along its front carries both.',
  'lining.reserved.through': '{name}: the ceiling runs through behind it and has to be up first.',
  'lining.reserved.opening': '{name} would hang {amount} in front of {opening}. Make it less high, or move it aside.',
  'lining.lean':
    '{unit}: leaned on above the mattress, the lining gives {sag} between supports {bay} apart. Put upright noggins between them up to {high} over it, or take a thicker sheet.',
  'lining.grooveDeep': 'A groove {depth} deep splits the face when the sheet is bent: no deeper than {most}.',
  'lining.grooveWide': 'Grooves {width} wide leave nothing between them at {spacing} apart.',
  'lining.grooveAcross':
    'The grooves run across the grain and will tear out: score both edges first, or turn grooves or sheet.',
  'lining.grooveMeet':
    'Grooves meet at {count} {count|place|places} over {seams} {seams|seam|seams}: mark every sheet from one datum, not from its own edge.',
  'lining.first.strip': 'glue {part} half behind its edge and let it set',
  'lining.first.drill': 'drill for {names}',
  'lining.first.thread': 'thread {names} through its slot',
} as const;
