package sums

import (
	"cmp"
	"frugalheron/core/malformed"
	"math"
	"regexp"
	"strconv"
	"strings"
)

// sectorBytes is what a sector of a disk holds that is counted by cylinders, heads and sectors.
const sectorBytes = 512

// DiskInput is the geometry of a disk, and what the firmware can reach.
type DiskInput struct {
	Cylinders int64  `json:"cylinders"`
	Heads     int64  `json:"heads"`
	Sectors   int64  `json:"sectors"`
	Limit     string `json:"limit" required:"false" example:"1024/16/63" doc:"A size, as 504 MiB, or a geometry; empty for none. K and M are decimal, Ki and Mi binary"`
}

// DiskSum is what the disk holds, and what of it is shown.
type DiskSum struct {
	Bytes int64  `json:"bytes"`
	Shown int64  `json:"shownBytes"`
	Limit *int64 `json:"limit" doc:"In bytes; null for none"`
}

var (
	diskSize     = regexp.MustCompile(`(?i)^(\d{1,12}(?:\.\d{1,6})?)\s*([kmgt]?)(i?)b?$`)
	diskGeometry = regexp.MustCompile(`^(\d+)\s*/\s*(\d+)\s*/\s*(\d+)$`)
)

// DiskOf tells how much of a disk is seen: a limit of size cuts off the size, one of geometry each of its figures. Firmware
// that starts again from 0 behind its limit shows less than that; nothing is said of it here.
func DiskOf(in DiskInput) (DiskSum, error) {
	all, err := sectorsOf("", [3]int64{in.Cylinders, in.Heads, in.Sectors})
	if err != nil {
		return DiskSum{}, err
	}
	d := DiskSum{Bytes: all, Shown: all}
	limit := strings.TrimSpace(in.Limit)
	if limit == "" {
		return d, nil
	}
	if m := diskGeometry.FindStringSubmatch(limit); m != nil {
		most, seen := [3]int64{}, [3]int64{}
		for i, have := range []int64{in.Cylinders, in.Heads, in.Sectors} {
			if most[i], err = strconv.ParseInt(m[i+1], 10, 64); err != nil {
				return DiskSum{}, malformed.Named("limit", "%s is no figure of a geometry", m[i+1])
			}
			seen[i] = min(have, most[i])
		}
		reach, err := sectorsOf("limit", most)
		if err != nil {
			return DiskSum{}, err
		}
		d.Limit = &reach
		d.Shown, err = sectorsOf("limit", seen)
		return d, err
	}
	m := diskSize.FindStringSubmatch(limit)
	if m == nil {
		return DiskSum{}, malformed.Named("limit", "%q is neither a size, as 504 MiB, nor a geometry, as 1024/16/63", in.Limit)
	}
	base := 1000.0
	if m[3] != "" {
		base = 1024
	}
	figure, _ := strconv.ParseFloat(m[1], 64)
	bytes := math.Round(figure * math.Pow(base, float64(strings.Index(" kmgt", strings.ToLower(m[2] + " ")[:1]))))
	if bytes < 1 || bytes > math.MaxInt64/2 {
		return DiskSum{}, malformed.Named("limit", "%q is no size of a disk", in.Limit)
	}
	reach := int64(bytes)
	d.Limit, d.Shown = &reach, min(all, reach)
	return d, nil
}

func sectorsOf(field string, figures [3]int64) (int64, error) {
	product := int64(sectorBytes)
	for i, n := range figures {
		of := []string{"cylinders", "heads", "sectors"}[i]
		if n < 1 || product > math.MaxInt64/n {
			return 0, malformed.Named(cmp.Or(field, of), "%d is no number of %s of a disk", n, of)
		}
		product *= n
	}
	return product, nil
}
