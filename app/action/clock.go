package action

import (
	"fmt"
	"time"
	_ "time/tzdata" // so that zones are known where the system knows none

	"frugalheron/core/calendar"
)

// Today is the day it is in the collection, YYYY-MM-DD: moves and looks are entered with it unless they say another.
func (a Actor) Today() string { return a.now().Format(time.DateOnly) }

// DayOf is the day of a moment in the collection, YYYY-MM-DD.
func (a Actor) DayOf(at time.Time) string { return at.In(a.zone()).Format(time.DateOnly) }

// Day is the day it is in the collection.
func (a Actor) Day() calendar.Date {
	now := a.now()
	return calendar.Date{Year: now.Year(), Month: int(now.Month()), Day: now.Day()}
}

// ThisYear is the year it is in the collection.
func (a Actor) ThisYear() int { return a.now().Year() }

// ZoneName is the name of the zone in which the collection counts its days.
func (a Actor) ZoneName() string { return a.zone().String() }

func (a Actor) now() time.Time { return time.Now().In(a.zone()) }

func (a Actor) zone() *time.Location {
	if a.Zone == nil {
		return time.UTC
	}
	return a.Zone
}

// ZoneOf finds a time zone by its name in the time zone database, as Europe/Lisbon; the empty name is UTC. The zone of
// the machine is no name: it would be another one after a move to another machine.
func ZoneOf(name string) (*time.Location, error) {
	if name == "Local" {
		return nil, fmt.Errorf("no time zone is called %q", name)
	}
	zone, err := time.LoadLocation(name)
	if err != nil {
		return nil, fmt.Errorf("no time zone is called %q", name)
	}
	return zone, nil
}
