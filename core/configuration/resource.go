package configuration

import (
	"regexp"
	"strings"
)

// Resource is what a setting gives a card: an interrupt, a channel, a window of addresses.
type Resource struct {
	Name   string // irq, dma, io, memory
	Choice string // 3, or 300-31F
}

var resource = regexp.MustCompile(`(?i)^(irq|dma|io|memory)\s+([0-9a-f]+(?:-[0-9a-f]+)?)$`)

// Resources reads those that a meaning names: irq 3, io 300-31F. Other words in it are no resources.
func Resources(meaning string) []Resource {
	found := []Resource{}
	for part := range strings.SplitSeq(meaning, ",") {
		if m := resource.FindStringSubmatch(strings.Join(strings.Fields(part), " ")); m != nil {
			found = append(found, Resource{strings.ToLower(m[1]), m[2]})
		}
	}
	return found
}
