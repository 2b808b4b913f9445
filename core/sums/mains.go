package sums

import (
	"fmt"
	"frugalheron/core/malformed"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"frugalheron/core/gate"
)

// MainsInput is what a plate says, and what there is in the wall.
type MainsInput struct {
	Rating string   `json:"rating" example:"220-240 V 50 Hz"`
	Local  string   `json:"local" example:"230 V 50 Hz"`
	Load   string   `json:"load" required:"false" example:"60 VA" doc:"Empty where nobody knows"`
	Margin *float64 `json:"margin,omitempty" doc:"Percent that a transformer gives beyond the load; 25 where it is left out, a rule of thumb"`
}

// MainsSum is whether the plate covers the wall, and how large a transformer would be.
type MainsSum struct {
	OK  bool     `json:"ok" doc:"The volts are covered; of several that the plate names, any"`
	VA  *float64 `json:"va" doc:"Of a transformer, with its margin; null where the load is not known"`
	Why []string `json:"why"`
}

var (
	hertzOf = regexp.MustCompile(`(?i)(\d+(?:\.\d+)?(?:\s*[-/]\s*\d+(?:\.\d+)?)*)\s*(?:hz|hertz)`)
	loadOf  = regexp.MustCompile(`(?i)^(\d+(?:\.\d+)?)\s*(va|w)?$`)
)

// MainsOf compares a plate with the local mains. A single figure covers 10 % either way, as at the gate; frequency is told,
// and decides nothing: what turns or is timed by it goes otherwise.
func MainsOf(in MainsInput) (MainsSum, error) {
	m := MainsSum{Why: []string{}}
	plate, hertz := splitPlate(in.Rating)
	local, localHertz := splitPlate(in.Local)
	volts, err := strconv.ParseFloat(strings.TrimSpace(strings.TrimRight(local, "VvACac~ ")), 64)
	if err != nil || volts <= 0 {
		return MainsSum{}, malformed.Named("local", "%q does not begin with one voltage, as 230 V 50 Hz", in.Local)
	}
	covers, isRead := gate.Covers(plate, volts)
	if !isRead {
		return MainsSum{}, malformed.Named("rating", "%q cannot be read; write it as 220-240 V 50 Hz", in.Rating)
	}
	m.OK = covers
	if covers {
		m.Why = append(m.Why, fmt.Sprintf("%s V covers %s V", plate, inShort(volts)))
	} else {
		m.Why = append(m.Why, fmt.Sprintf("%s V does not cover %s V: a transformer between them", plate, inShort(volts)))
	}
	m.Why = append(m.Why, frequencies(hertz, localHertz))
	margin := or(in.Margin, 25)
	if !(margin >= 0 && margin <= 1000) {
		return MainsSum{}, malformed.Named("margin", "%v is no margin in percent", margin)
	}
	if strings.TrimSpace(in.Load) == "" {
		return m, nil
	}
	load := loadOf.FindStringSubmatch(strings.TrimSpace(in.Load))
	if load == nil {
		return MainsSum{}, malformed.Named("load", "%q is no load; write it as 60 VA", in.Load)
	}
	figure, _ := strconv.ParseFloat(load[1], 64)
	va := figure * (1 + margin/100)
	m.VA = &va
	if strings.EqualFold(load[2], "w") {
		m.Why = append(m.Why, "watts are taken as VA; supplies of the time draw more VA than watts")
	}
	return m, nil
}

// splitPlate takes the frequency out of what a plate says.
func splitPlate(text string) (volts, hertz string) {
	if m := hertzOf.FindStringSubmatch(text); m != nil {
		hertz = strings.ReplaceAll(m[1], " ", "")
	}
	volts = strings.TrimSpace(strings.Trim(hertzOf.ReplaceAllString(text, ""), " ,;~"))
	return strings.TrimSpace(strings.TrimSuffix(strings.TrimSuffix(volts, "V"), "v")), hertz
}

func frequencies(plate, local string) string {
	switch {
	case plate == "" || local == "":
		return "frequency: not told of both; a transformer does not change it"
	case gate.CoversHertz(plate, local):
		return fmt.Sprintf("frequency: %s Hz on the plate, %s Hz here", plate, local)
	}
	figures := strings.FieldsFunc(plate, func(r rune) bool { return r == '/' || r == '-' })
	slices.Sort(figures)
	return fmt.Sprintf("frequency: the plate says %s Hz, here are %s Hz; a transformer does not change it, and motors, clocks and pictures that go by it run otherwise",
		strings.Join(figures, " or "), local)
}
