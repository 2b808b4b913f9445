// Package rom reads the content of read-only memories: what is in an image, how two images differ, and
// the text formats that they travel in.
package rom

import (
	"crypto/sha1" //nolint:gosec // it names files, as lists of known images do; it guards nothing
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"hash/crc32"
)

// MaxBytes is the largest image that is taken: larger ones are no read-only memory of the machines that
// this is for.
const MaxBytes = 16 << 20

// blankRun is how many equal bytes FF or 00 in a row are blank.
const blankRun = 16

// Sums name an image. SHA256 is the name that it is kept under.
type Sums struct {
	CRC32  string `json:"crc32"`
	SHA1   string `json:"sha1"`
	SHA256 string `json:"sha256"`
	Sum16  string `json:"sum16"` // sum of the bytes modulo 65,536
}

// SumsOf computes them, all in lower-case hex.
func SumsOf(data []byte) Sums {
	one := sha1.Sum(data) //nolint:gosec // see above
	two := sha256.Sum256(data)
	return Sums{
		CRC32: fmt.Sprintf("%08x", crc32.ChecksumIEEE(data)), SHA1: hex.EncodeToString(one[:]),
		SHA256: hex.EncodeToString(two[:]),
		Sum16:  fmt.Sprintf("%04x", sum16(data)),
	}
}

func sum16(data []byte) uint16 {
	var sum uint32
	for _, b := range data {
		sum += uint32(b)
	}
	return uint16(sum) //nolint:gosec // the sum is meant to wrap
}

// Run is a stretch of equal bytes; To is the offset behind its last.
type Run struct {
	From  int  `json:"from"`
	To    int  `json:"to"`
	Value byte `json:"value"`
}

// blankRuns finds the stretches of at least blankRun bytes FF or 00.
func blankRuns(data []byte) []Run {
	runs := []Run{}
	// A run covers every place that is a multiple of its least length: only those need a look.
	for at := blankRun - 1; at < len(data); at += blankRun {
		value := data[at]
		if value != 0x00 && value != 0xff {
			continue
		}
		from := at
		for from > 0 && data[from-1] == value {
			from--
		}
		to := at + 1
		for to < len(data) && data[to] == value {
			to++
		}
		if to-from >= blankRun {
			runs = append(runs, Run{from, to, value})
			// The next place to look at is the first behind the run.
			at = to - 1
			at -= (at + 1) % blankRun
		}
	}
	return runs
}

func lengthOf(runs []Run) int {
	sum := 0
	for _, r := range runs {
		sum += r.To - r.From
	}
	return sum
}

// filled lists the stretches between runs.
func filled(runs []Run, length int) [][2]int {
	stretches := [][2]int{}
	from := 0
	for _, r := range runs {
		if r.From > from {
			stretches = append(stretches, [2]int{from, r.From})
		}
		from = r.To
	}
	if from < length {
		stretches = append(stretches, [2]int{from, length})
	}
	return stretches
}
