package risk

import (
	"math"
	"time"
)

// Month is how many parts, or groups of equal ones, are to be looked at in a month.
type Month struct {
	Month string // as 2026-11
	Looks int
}

// Ahead says how many looks are overdue, and how many fall due in each of some months, today's the first. A part falls due
// once, when its months are over: how it is looked at then decides what follows.
func (o *Order) Ahead(months int) (overdue int, ahead []Month) {
	today := time.Unix(int64(o.now)*secondsADay, 0).UTC()
	first := time.Date(today.Year(), today.Month(), 1, 0, 0, 0, 0, time.UTC)
	ahead = make([]Month, months)
	ends := make([]Day, months) // the first day after each
	for i := range ahead {
		ahead[i].Month = first.AddDate(0, i, 0).Format("2006-01")
		ends[i] = Day(first.AddDate(0, i+1, 0).Unix() / secondsADay) //nolint:gosec // a day of our centuries fits
	}
	for i := range o.Len() {
		if o.isDue(i) {
			overdue++
			continue
		}
		r := o.At(i)
		left := math.Ceil((r.Every - r.Months) * daysAMonth)
		if len(ends) == 0 || left >= float64(ends[len(ends)-1]-o.now) {
			continue
		}
		for month, end := range ends {
			if o.now+Day(left) < end {
				ahead[month].Looks++
				break
			}
		}
	}
	return overdue, ahead
}

const secondsADay = 24 * 60 * 60
