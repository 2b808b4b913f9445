package dating

import (
	"fmt"
	"slices"

	"frugalheron/core/calendar"
)

// byFirmware takes in the years in read-only memories: the machine is not older than the text in it, unless
// the memory was changed.
func (d *dater) byFirmware(claims []Evidence) {
	for _, e := range claims {
		switch {
		case e.NeverDates():
			d.say("Left out: what %s claims, which was put in later by what somebody wrote or decided.", e.ID)
		case d.r.NotBefore == nil:
			from := e.From
			d.r.NotBefore = &from
			d.say("The firmware claims %s: it was not written before.", e.From)
		case d.r.Estimate != nil && e.From.Days() > d.r.Estimate.To.Days():
			past := weeks(*d.r.NotBefore, e.From)
			d.r.Outliers = append(d.r.Outliers,
				Outlier{e.ID, "later", past,
					fmt.Sprintf("the firmware claims %s, %d weeks past the newest part: it was changed later", e.From,
						past)})
		case e.From.Days() > d.r.NotBefore.Days():
			from := e.From
			d.r.NotBefore = &from
			d.r.Estimate.From = calendar.FromDays(max(d.r.Estimate.From.Days(), from.Days()))
			d.say("The firmware claims %s, after the newest part.", e.From)
		}
	}
}

// byPlate takes in plates, which tell when the machine was put together, and papers, by which it was there.
func (d *dater) byPlate(plates, papers []Evidence) {
	for _, e := range slices.Concat(plates, papers) {
		if d.r.NotAfter == nil || e.To.Days() < d.r.NotAfter.Days() {
			to := e.To
			d.r.NotAfter = &to
		}
	}
	for _, plate := range plates {
		d.say("The plate %s says %s.", plate.ID, words(plate))
		if len(d.cluster) > 0 {
			if newest := newestOf(d.cluster); weeks(newest.To, plate.From) > d.rules.Idle {
				d.say("The plate is %d weeks newer than the newest part, %s: old parts were used, the boards are of another machine, or the plate is.",
					weeks(newest.To, plate.From), newest.ID)
			}
		}
		for _, part := range d.cluster {
			if part.Mounting == Soldered && part.From.Days() > plate.To.Days() {
				d.conflict([]string{plate.ID, part.ID},
					"%s is soldered in and was made %d weeks after the date of the plate: the board was exchanged, or the plate is of another machine",
					part.ID, weeks(plate.To, part.From))
				break
			}
		}
	}
	for _, paper := range papers {
		d.say("By the paper %s the machine was there by %s.", paper.ID, paper.To)
		if len(d.cluster) > 0 && paper.To.Days() < d.r.NotBefore.Days() {
			d.conflict([]string{paper.ID, newestOf(d.cluster).ID},
				"the paper is %d weeks older than the newest part of the machine", weeks(paper.To, *d.r.NotBefore))
		}
	}
	if len(plates) > 1 && plates[0].To.Days() < plates[len(plates)-1].From.Days() {
		d.conflict([]string{plates[0].ID, plates[len(plates)-1].ID}, "the plates name different times, %s and %s",
			words(plates[0]), words(plates[len(plates)-1]))
	}
	switch {
	case len(plates) > 0:
		plate := plates[0]
		estimate := Span{plate.From, plate.To}
		if d.r.NotBefore != nil && d.r.NotBefore.Days() <= plate.To.Days() {
			estimate.From = calendar.FromDays(max(plate.From.Days(), d.r.NotBefore.Days()))
		}
		d.r.Estimate = &estimate
	case d.r.NotAfter != nil && d.r.Estimate != nil && d.r.NotAfter.Days() >= d.r.Estimate.From.Days():
		d.r.Estimate.To = calendar.FromDays(min(d.r.Estimate.To.Days(), d.r.NotAfter.Days()))
	}
}

func words(e Evidence) string {
	if e.From == e.To {
		return e.From.String()
	}
	return fmt.Sprintf("%s to %s", e.From, e.To)
}

// againstWindow lays estimate and parts beside the time in which the model was made. Nothing is cut to fit.
func (d *dater) againstWindow(windows []Evidence) {
	for _, w := range windows {
		if e := d.r.Estimate; e != nil {
			switch {
			case !w.To.IsZero() && e.From.Days() > w.To.Days():
				d.conflict([]string{w.ID}, "built after %s by the evidence, but the model was made until %s only",
					e.From, w.To)
			case !w.From.IsZero() && e.To.Days() < w.From.Days():
				d.conflict([]string{w.ID}, "built before %s by the evidence, but the model was made from %s on", e.To,
					w.From)
			case (w.From.IsZero() || e.From.Days() >= w.From.Days()) && (w.To.IsZero() || e.To.Days() <= w.To.Days()):
				d.say("That lies in the time in which the model was made, %s to %s.", orOpen(w.From), orOpen(w.To))
			default:
				d.say("Only a part of that lies in the time in which the model was made, %s to %s.", orOpen(w.From),
					orOpen(w.To))
			}
		}
		if len(d.cluster) == 0 || w.To.IsZero() {
			continue
		}
		if newest := newestOf(d.cluster); newest.From.Days() > w.To.Days() {
			d.conflict([]string{newest.ID, w.ID},
				"%s was made %d weeks after the model was given up, though it is of one time with the others",
				newest.ID, weeks(w.To, newest.From))
		}
	}
}

func orOpen(d calendar.Date) string {
	if d.IsZero() {
		return "an unknown day"
	}
	return d.String()
}
