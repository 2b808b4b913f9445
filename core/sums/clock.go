package sums

import (
	"fmt"
	"frugalheron/core/malformed"

	"frugalheron/core/quantity"
)

// ClockInput is what a clock is made from.
type ClockInput struct {
	Crystal    string   `json:"crystal" example:"14.31818 MHz"`
	Divider    *float64 `json:"divider,omitempty" doc:"1 where it is left out"`
	Multiplier *float64 `json:"multiplier,omitempty" doc:"1 where it is left out"`
	Rating     string   `json:"rating" required:"false" example:"5 MHz" doc:"What the part may take; empty where nobody knows"`
}

// ClockSum is what comes of it.
type ClockSum struct {
	Hz       float64  `json:"hz"`
	RatingHz *float64 `json:"ratingHz" doc:"Null where nobody knows"`
	OK       *bool    `json:"ok" doc:"Not above the rating; null where nobody knows that"`
	Note     string   `json:"note"`
}

// ClockOf divides and multiplies a crystal, and compares it with what a part may take. A rating is a rounded figure: what
// is above it by no more than half of its last written digit is the same grade, with a note.
func ClockOf(in ClockInput) (ClockSum, error) {
	crystal, _, err := positive("crystal", in.Crystal, quantity.Hertz)
	if err != nil {
		return ClockSum{}, err
	}
	divider, multiplier := or(in.Divider, 1), or(in.Multiplier, 1)
	for field, figure := range map[string]float64{"divider": divider, "multiplier": multiplier} {
		if !(figure > 0 && figure < 1e9) {
			return ClockSum{}, malformed.Named(field, "%v is not above 0", figure)
		}
	}
	c := ClockSum{Hz: crystal / divider * multiplier}
	if in.Rating == "" {
		return c, nil
	}
	rating, digit, err := positive("rating", in.Rating, quantity.Hertz)
	if err != nil {
		return ClockSum{}, err
	}
	over := c.Hz - rating
	isOK := over <= 0 || same(c.Hz, rating) || over <= digit/2 || same(over, digit/2)
	c.RatingHz, c.OK = &rating, &isOK
	switch {
	case isOK && over > 0 && !same(c.Hz, rating):
		c.Note = fmt.Sprintf("%s is %s when it is written as the rating is", quantity.Hertz.Say(c.Hz), in.Rating)
	case !isOK:
		c.Note = fmt.Sprintf("%s is above the rating by %s %%", quantity.Hertz.Say(c.Hz), inShort(over/rating*100))
	}
	return c, nil
}
