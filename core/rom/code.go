package rom

import (
	"cmp"
	"encoding/binary"
	"fmt"
	"math/bits"
	"slices"
)

// Vector is a place that a processor would start or go on at.
type Vector struct {
	Name  string `json:"name"`
	At    int    `json:"at"`    // offset of the vector
	To    string `json:"to"`    // address that it holds, in hex
	Leads int    `json:"leads"` // offset that it leads to
}

// StartMatch is a kind of processor whose way of starting fits the image.
type StartMatch struct {
	Kind    string   `json:"kind"`
	Order   string   `json:"order"` // of the bytes of an address
	Score   int      `json:"score"` // how much speaks for it; 1 is little
	Why     []string `json:"why"`
	Vectors []Vector `json:"vectors"`
}

// StartMatches tells which kinds of processors could start in an image, the best first. Each is a guess: the
// image is taken to lie where such a processor starts, and nothing but its way of starting is looked at.
// One copy of what repeats is enough.
func StartMatches(data []byte) []StartMatch {
	fits := []StartMatch{}
	for _, look := range []func([]byte) StartMatch{
		vectorsLowFirst, vectorsHighFirst, startsAtZero, farJumpNearEnd, stackAndStart, controllerJump,
	} {
		if fit := look(data); fit.Score > 0 {
			fits = append(fits, fit)
		}
	}
	slices.SortStableFunc(fits, func(a, b StartMatch) int { return cmp.Compare(b.Score, a.Score) })
	return fits
}

// leads reports whether an offset lies in the image where it is not blank.
func leads(data []byte, offset int) bool {
	if offset < 0 || offset+blankRun > len(data) {
		return offset >= 0 && offset < len(data) && data[offset] != 0xff
	}
	return !isConstant(data[offset : offset+blankRun])
}

const top8Bit = 1 << 16

// vectors reads addresses of two bytes counted from the end, of an image that ends at FFFF.
func (f *StartMatch) vectors(data []byte, order binary.ByteOrder, at map[string]int) {
	if len(data) < 256 || len(data) > top8Bit {
		return
	}
	base := top8Bit - len(data)
	seen := map[int]bool{}
	for _, name := range []string{"start", "interrupt that cannot be masked", "interrupt"} {
		offset := len(data) - at[name]
		address := int(order.Uint16(data[offset:]))
		if address == 0 || address == 0xffff || seen[address] {
			continue
		}
		seen[address] = true
		if to := address - base; leads(data, to) && to < len(data)-8 {
			f.Score++
			f.Vectors = append(f.Vectors, Vector{name, offset, fmt.Sprintf("%04X", address), to})
			f.Why = append(f.Why,
				fmt.Sprintf("%s at %04X leads to %04X, which lies in the image", name, base+offset, address))
			if name == "start" {
				f.Score++
			}
		}
	}
	if len(f.Vectors) == 0 || f.Vectors[0].Name != "start" {
		f.Score = 0
	}
}

const (
	lowFirst  = "low byte first"
	highFirst = "high byte first"
)

func vectorsLowFirst(data []byte) StartMatch {
	f := StartMatch{Kind: "8 bits, starts by a vector at the very end", Order: lowFirst, Why: []string{},
		Vectors: []Vector{}}
	f.vectors(data, binary.LittleEndian,
		map[string]int{"start": 4, "interrupt that cannot be masked": 6, "interrupt": 2})
	// The first thing such a program does is to set up the stack: A2 FF 9A, or to switch interrupts off.
	f.first(data, map[byte]string{0x78: "interrupts off", 0xd8: "binary arithmetic", 0xa2: "a register loaded"})
	return f
}

func vectorsHighFirst(data []byte) StartMatch {
	f := StartMatch{Kind: "8 bits, starts by a vector at the very end", Order: highFirst, Why: []string{},
		Vectors: []Vector{}}
	f.vectors(data, binary.BigEndian, map[string]int{"start": 2, "interrupt that cannot be masked": 4, "interrupt": 8})
	f.first(data, map[byte]string{0x8e: "the stack set up", 0x10: "the stack set up", 0x0f: "interrupts off",
		0x1a: "interrupts off"})
	return f
}

// first looks at the instruction that the start leads to.
func (f *StartMatch) first(data []byte, usual map[byte]string) {
	if f.Score == 0 {
		return
	}
	if words, ok := usual[data[f.Vectors[0].Leads]]; ok {
		f.Score++
		f.Why = append(f.Why, fmt.Sprintf("the program starts with %02X: %s", data[f.Vectors[0].Leads], words))
	}
}

func startsAtZero(data []byte) StartMatch {
	f := StartMatch{Kind: "8 bits, starts at address 0", Order: lowFirst, Why: []string{}, Vectors: []Vector{}}
	if len(data) < 256 || len(data) > top8Bit {
		return f
	}
	at := 0
	if data[0] == 0xf3 {
		at = 1
		f.Why = append(f.Why, "the first instruction, F3, switches interrupts off")
	}
	if data[at] == 0xc3 {
		to := int(binary.LittleEndian.Uint16(data[at+1:]))
		if leads(data, to) && to > at+2 {
			f.Score += 2 + at
			f.Vectors = append(f.Vectors, Vector{"start", at, fmt.Sprintf("%04X", to), to})
			f.Why = append(f.Why, fmt.Sprintf("a jump at %04X leads to %04X, which lies in the image", at, to))
		}
	} else if at == 1 && (data[1] == 0x31 || data[1] == 0xed) {
		f.Score += 2
		f.Why = append(f.Why, "the second sets up the stack or the way of interrupting")
	}
	if f.Score == 0 {
		return f
	}
	// Eight short calls lead to multiples of eight.
	for restart := 0x08; restart <= 0x38; restart += 8 {
		if data[restart] != 0xc3 {
			continue
		}
		if to := int(binary.LittleEndian.Uint16(data[restart+1:])); leads(data, to) {
			f.Vectors = append(f.Vectors,
				Vector{fmt.Sprintf("call %02X", restart), restart, fmt.Sprintf("%04X", to), to})
		}
	}
	if n := len(f.Vectors) - 1; n > 0 {
		f.Score += min(2, n)
		f.Why = append(f.Why, fmt.Sprintf("%d of the short calls lead into the image", n))
	}
	return f
}

func farJumpNearEnd(data []byte) StartMatch {
	f := StartMatch{Kind: "16 bits with segments, starts 16 bytes before the end", Order: lowFirst, Why: []string{},
		Vectors: []Vector{}}
	const top = 1 << 20
	if len(data) < 256 || len(data) > top {
		return f
	}
	at := len(data) - 16
	if data[at] != 0xea {
		return f
	}
	offset, segment := int(binary.LittleEndian.Uint16(data[at+1:])), int(binary.LittleEndian.Uint16(data[at+3:]))
	to := segment<<4 + offset - (top - len(data))
	if !leads(data, to) {
		return f
	}
	f.Score = 4
	f.Vectors = append(f.Vectors, Vector{"start", at, fmt.Sprintf("%04X:%04X", segment, offset), to})
	f.Why = append(f.Why,
		fmt.Sprintf("a far jump stands 16 bytes before the end and leads to %04X:%04X, which lies in the image",
			segment, offset))
	return f
}

func stackAndStart(data []byte) StartMatch {
	f := StartMatch{Kind: "16 or 32 bits, stack and start at the beginning", Order: highFirst, Why: []string{},
		Vectors: []Vector{}}
	if len(data) < 1024 || bits.OnesCount(uint(len(data))) != 1 {
		return f
	}
	stack, start := binary.BigEndian.Uint32(data), binary.BigEndian.Uint32(data[4:])
	// Such a processor has 24 lines for addresses, or a program that does not use more.
	if stack%2 != 0 || start%2 != 0 || start == 0 || start>>24 != 0 || stack == 0xffffffff {
		return f
	}
	mask := uint32(len(data) - 1) //nolint:gosec // at most MaxBytes
	base, to := start&^mask, int(start&mask)
	if !leads(data, to) || to < 8 {
		return f
	}
	inside := 0
	for vector := 2; vector < 32; vector++ {
		address := binary.BigEndian.Uint32(data[4*vector:])
		if address%2 == 0 && address&^mask == base && leads(data, int(address&mask)) {
			inside++
		}
	}
	if inside < 4 {
		return f
	}
	f.Score = 2 + min(3, inside/4)
	f.Vectors = append(f.Vectors, Vector{"start", 4, fmt.Sprintf("%06X", start), to})
	f.Why = append(f.Why,
		fmt.Sprintf("the first four bytes, %06X, can be a stack, the next four, %06X, lead into the image when it lies at %06X", stack, start, base),
		fmt.Sprintf("%d of the 30 vectors behind them do so too", inside))
	return f
}

func controllerJump(data []byte) StartMatch {
	f := StartMatch{Kind: "8-bit controller, starts at address 0", Order: highFirst, Why: []string{}, Vectors: []Vector{}}
	if len(data) < 256 || len(data) > top8Bit || data[0] != 0x02 {
		return f
	}
	to := int(binary.BigEndian.Uint16(data[1:]))
	if !leads(data, to) || to < 3 {
		return f
	}
	f.Score = 2
	f.Vectors = append(f.Vectors, Vector{"start", 0, fmt.Sprintf("%04X", to), to})
	f.Why = append(f.Why, fmt.Sprintf("a jump at 0000 leads to %04X, which lies in the image", to))
	for _, at := range []int{0x03, 0x0b, 0x13, 0x1b, 0x23} {
		if data[at] == 0x02 && leads(data, int(binary.BigEndian.Uint16(data[at+1:]))) {
			f.Vectors = append(f.Vectors,
				Vector{"interrupt", at, fmt.Sprintf("%04X", binary.BigEndian.Uint16(data[at+1:])),
					int(binary.BigEndian.Uint16(data[at+1:]))})
		}
	}
	if n := len(f.Vectors) - 1; n > 0 {
		f.Score += min(3, n)
		f.Why = append(f.Why, fmt.Sprintf("%d of its interrupts hold a jump into the image", n))
	}
	return f
}

// leastJumps is how many jumps in a row are a table.
const leastJumps = 4

// JumpTable tells whether an image begins with a table of jumps of three bytes each, as one does that
// other programs call into; nil for none.
func JumpTable(data []byte) *StartMatch {
	for _, jump := range []struct {
		code  byte
		order binary.ByteOrder
		words string
	}{{0xc3, binary.LittleEndian, lowFirst}, {0x4c, binary.LittleEndian, lowFirst}, {0x7e, binary.BigEndian, highFirst},
		{0x02, binary.BigEndian, highFirst}} {
		n := 0
		for at := 0; at+2 < len(data) && data[at] == jump.code; at += 3 {
			n++
		}
		if n < leastJumps {
			continue
		}
		table := StartMatch{Kind: "a table of jumps", Order: jump.words, Score: 1, Vectors: []Vector{},
			Why: []string{
				fmt.Sprintf("%d jumps of three bytes, %02X and an address, stand at the beginning", n, jump.code),
			}}
		// Taken to lie on a multiple of its size, as memories do.
		mask := 1<<bits.Len(uint(len(data)-1)) - 1 //nolint:gosec // a length
		for i := range min(n, 64) {
			address := int(jump.order.Uint16(data[3*i+1:]))
			if to := address & mask; leads(data, to) {
				table.Vectors = append(table.Vectors,
					Vector{fmt.Sprintf("jump %d", i), 3 * i, fmt.Sprintf("%04X", address), to})
			}
		}
		return &table
	}
	return nil
}
