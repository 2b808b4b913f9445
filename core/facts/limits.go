package facts

import (
	_ "embed"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"sync"

	"frugalheron/core/table"
)

//go:embed limits.tsv
var limitsText string

// Limit is what firmware or a program cannot show more of.
type Limit struct {
	Name      string `json:"name"`
	Bytes     int64  `json:"bytes"`
	Attribute string `json:"attribute,omitempty"` // of which it shows no more; empty for any that is in bytes
}

// CommonLimits are those that follow from how firmware and programs count.
func CommonLimits() []Limit { return slices.Clone(readLimits()) }

var readLimits = sync.OnceValue(func() []Limit {
	read := []Limit{}
	for _, row := range table.Reference("limits", limitsText, "attribute", "name", "bytes", "source") {
		bytes, err := strconv.ParseInt(row[2], 10, 64)
		if err != nil {
			panic("limits.tsv: " + row[2]) // a test reads it, so this cannot ship
		}
		read = append(read, Limit{Attribute: row[0], Name: row[1], Bytes: bytes})
	}
	return read
})

// ReadLimit reads an amount as the most that is shown of an attribute.
func ReadLimit(name, attribute, amount string) (Limit, error) {
	a := AttributeOf(attribute)
	read, err := a.parse(amount)
	if err != nil && a.isOfBytes() {
		return Limit{}, err
	}
	if !a.isOfBytes() || len(read.spans) != 1 || read.spans[0].unit != inBytes {
		return Limit{}, fmt.Errorf("%s is not counted in bytes; limits are for attributes as disk size and memory",
			strings.ReplaceAll(attribute, "-", " "))
	}
	return Limit{Name: name, Bytes: int64(read.spans[0].from), Attribute: attribute}, nil
}

// limitOf finds a limit that equals what is shown of something that has more, whether a program counts K by 1000 or by
// 1024. What there is may be known in no figures.
func (j *judging) limitOf(shown, there said, limits []Limit) (Limit, bool) {
	for _, limit := range limits {
		if limit.Attribute != "" && limit.Attribute != j.attribute.Key || there.value.holdsLess(limit.Bytes) {
			continue
		}
		for _, base := range []int{j.attribute.Base, 1000, 1024} {
			attribute := Attribute{Form: Quantity, Unit: inBytes, Base: base}
			read, err := attribute.parse(shown.Value)
			if err != nil {
				break
			}
			exact := value{form: Quantity,
				spans: []span{{from: float64(limit.Bytes), to: float64(limit.Bytes), unit: inBytes}}}
			read.spans[0].exact = false
			if read.agrees(exact) {
				return limit, true
			}
		}
	}
	return Limit{}, false
}

// holdsLess reports whether a value is an amount below some bytes, by more than its last digit.
func (v value) holdsLess(bytes int64) bool {
	return v.form == Quantity && len(v.spans) == 1 && v.spans[0].unit == inBytes &&
		v.spans[0].to+v.spans[0].half < float64(bytes)
}
