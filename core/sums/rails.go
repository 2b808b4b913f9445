package sums

import (
	"frugalheron/core/malformed"
	"strings"

	"frugalheron/core/quantity"
)

// RailsInput is what a supply gives and what is drawn, as +5 20, -12 0.5, in amperes.
type RailsInput struct {
	Rating string `json:"rating" example:"+5 20, -12 0.5"`
	Draw   string `json:"draw" example:"+5 3.2, +5 1.1" doc:"A rail may stand several times"`
}

// RailSum is a rail with what is left of it.
type RailSum struct {
	Draw     float64  `json:"draw"`
	Rating   *float64 `json:"rating" doc:"Null where nobody knows"`
	Headroom *float64 `json:"headroom" doc:"Rating less draw; below 0 when over"`
	OK       *bool    `json:"ok" doc:"Not over; null where the rating is not known"`
}

// RailsSum is all of them.
type RailsSum struct {
	OK    *bool              `json:"ok" doc:"False when one is over, null when of one nobody knows"`
	Rails map[string]RailSum `json:"rails"`
}

// RailsOf adds up what is drawn of each rail and compares it with what it gives; as much as it gives is not over.
func RailsOf(in RailsInput) (RailsSum, error) {
	told := RailsSum{Rails: map[string]RailSum{}}
	ratings := map[string]float64{}
	err := eachRail("rating", in.Rating, func(rail string, amperes float64) error {
		if _, isThere := ratings[rail]; isThere {
			return malformed.Named("rating", "%s is rated twice", rail)
		}
		ratings[rail] = amperes
		told.Rails[rail] = RailSum{}
		return nil
	})
	if err != nil {
		return RailsSum{}, err
	}
	err = eachRail("draw", in.Draw, func(rail string, amperes float64) error {
		one := told.Rails[rail]
		one.Draw = quantity.Billionth(one.Draw + amperes)
		told.Rails[rail] = one
		return nil
	})
	if err != nil {
		return RailsSum{}, err
	}
	isOver, isUnknown := false, false
	for rail, one := range told.Rails {
		rating, isRated := ratings[rail]
		if !isRated {
			isUnknown = true
			continue
		}
		left := quantity.Billionth(rating - one.Draw)
		isOK := left >= 0
		isOver = isOver || !isOK
		one.Rating, one.Headroom, one.OK = &rating, &left, &isOK
		told.Rails[rail] = one
	}
	if isOK := !isOver; isOver || !isUnknown {
		told.OK = &isOK
	}
	return told, nil
}

func eachRail(field, text string, take func(rail string, amperes float64) error) error {
	for one := range strings.SplitSeq(text, ",") {
		if strings.TrimSpace(one) == "" {
			continue
		}
		rail, amperes, found := strings.Cut(strings.TrimSpace(one), " ")
		if !found {
			return malformed.Named(field, "%q is no rail with its amperes, as +5 3.2", strings.TrimSpace(one))
		}
		value, _, err := read(field, strings.TrimSpace(amperes), quantity.Amperes)
		if err != nil {
			return err
		}
		if value < 0 {
			return malformed.Named(field, "%q is below 0", strings.TrimSpace(one))
		}
		if err := take(strings.TrimRight(rail, "Vv"), value); err != nil {
			return err
		}
	}
	return nil
}
