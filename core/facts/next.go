package facts

import "slices"

// suggest says what would settle the fact, or show which of two is right: it follows from who differs.
func (j *judging) suggest() {
	if len(j.out.Differ) == 0 {
		switch {
		case j.out.State == Settled || j.out.Next != "":
		case slices.ContainsFunc(j.said, func(s said) bool { return s.on == nil && s.nature == Timely }):
			j.out.Next = "ask when that was, and note it"
		default:
			j.out.Next = j.attribute.SettledBy
		}
		return
	}
	first, second := j.byID(j.out.Differ[0].IDs[0]), j.byID(j.out.Differ[0].IDs[1])
	from := func(sources ...Source) bool {
		return slices.Contains(sources, first.Source) && slices.Contains(sources, second.Source)
	}
	switch {
	case first.nature == Timely && (first.on == nil) != (second.on == nil):
		j.out.Next = "ask when that was, of the statement that has no date"
	case first.value.form == YesNo && j.out.State == Open && j.out.Now != nil && j.out.Now.Value == Intermittent:
		j.out.Next = "try it several times, cold and warm, and note each"
	case first.nature == SeenBy || second.nature == SeenBy:
		j.out.Next = "look up what the firmware or the program can show at most, and note it as a limit"
	case from(Counted, Firmware):
		j.out.Next = "reseat the chips or modules and count again; then take one module out and see by how much the report falls"
	case from(Counted):
		j.out.Next = "count again together, and say which of both was counted"
	case from(Label, Tested) || from(Label, Counted) || from(Label, Measured) || from(Label, Seen) ||
		from(Label, Firmware):
		j.out.Next = "a label may belong to another part: " + j.attribute.SettledBy
	case from(Document):
		j.out.Next = "find which of the two documents is dated nearer to the thing, and which speaks of this variant"
	default:
		j.out.Next = j.attribute.SettledBy
	}
}

func (j *judging) byID(id string) said {
	return j.said[slices.IndexFunc(j.said, func(s said) bool { return s.ID == id })]
}
