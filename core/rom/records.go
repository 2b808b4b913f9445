package rom

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"math"
	"slices"
)

// records collects what records give.
type records struct {
	stretches []stretch
	upper     uint32 // added to the addresses of hex records
	isSegment bool   // upper is a segment: addresses wrap within 64 KiB
	counted   int    // data records so far
	ended     bool
}

type stretch struct {
	line    int
	address uint32
	data    []byte
}

// add takes data at an address; what goes on where the last record ended joins it.
func (r *records) add(line int, address uint32, data []byte) error {
	r.counted++
	if len(data) == 0 {
		return nil
	}
	if uint64(address)+uint64(len(data)) > 1<<32 {
		return wrong(line, "its data would end behind the address FFFFFFFF")
	}
	if n := len(r.stretches); n > 0 {
		last := &r.stretches[n-1]
		if last.address+uint32(len(last.data)) == address { //nolint:gosec // checked above
			last.data = append(last.data, data...)
			return nil
		}
	}
	r.stretches = append(r.stretches, stretch{line, address, slices.Clone(data)})
	return nil
}

// image lays the stretches out from the lowest address on.
func (r *records) image(format Format) (Image, error) {
	image := Image{Format: format, Data: []byte{}}
	if len(r.stretches) == 0 {
		return image, nil
	}
	low, high := uint64(math.MaxUint64), uint64(0)
	highest := 0
	for _, s := range r.stretches {
		low = min(low, uint64(s.address))
		if end := uint64(s.address) + uint64(len(s.data)); end > high {
			high, highest = end, s.line
		}
	}
	if high-low > MaxBytes {
		return Image{}, wrong(highest, "the data reaches from address %X to %X; an image has at most %d bytes", low,
			high-1, MaxBytes)
	}
	image.Base = uint32(low) //nolint:gosec // an address
	image.Data = bytes.Repeat([]byte{0xff}, int(high-low))
	given := make([]bool, high-low)
	image.Gaps = len(given)
	for _, s := range r.stretches {
		for i, b := range s.data {
			at := uint64(s.address) - low + uint64(i)
			if given[at] && image.Data[at] != b {
				return Image{}, wrong(s.line, "gives another byte for address %X than a line before", low+at)
			}
			if !given[at] {
				image.Gaps--
			}
			given[at], image.Data[at] = true, b
		}
	}
	return image, nil
}

// Types of hex records.
const (
	hexData = iota
	hexEnd
	hexSegment
	hexStartSegment
	hexLinear
	hexStartLinear
)

// readHexRecord reads ":", count, address, type, data and checksum.
func readHexRecord(r *records, line int, text []byte) error {
	if text[0] != ':' {
		return wrong(line, "does not start with a colon, as every record before it does")
	}
	record, err := bytesOf(line, text[1:])
	if err != nil {
		return err
	}
	if len(record) < 5 || len(record) != int(record[0])+5 {
		return wrong(line, "announces %d bytes and holds %d: it was cut off, or bytes were lost", firstByte(record),
			max(0, len(record)-5))
	}
	if sum := sumOf(record); sum != 0 {
		return wrong(line, "its checksum is %02X and ought to be %02X: a character was changed", record[len(record)-1],
			record[len(record)-1]-sum)
	}
	address, data := uint32(binary.BigEndian.Uint16(record[1:])), record[4:len(record)-1]
	switch record[3] {
	case hexData:
		return r.addHex(line, address, data)
	case hexEnd:
		r.ended = true
	case hexSegment, hexLinear:
		if len(data) != 2 {
			return wrong(line, "gives an upper address of %d bytes; it has 2", len(data))
		}
		r.isSegment = record[3] == hexSegment
		r.upper = uint32(binary.BigEndian.Uint16(data)) << 16
		if r.isSegment {
			r.upper >>= 12
		}
	case hexStartSegment, hexStartLinear: // where a program starts; an image has no use for it
	default:
		return wrong(line, "is of type %02X, which is not known", record[3])
	}
	return nil
}

// addHex takes data whose lower address wraps at 64 KiB.
func (r *records) addHex(line int, address uint32, data []byte) error {
	const wrap = 1 << 16
	if !r.isSegment || int(address)+len(data) <= wrap {
		return r.add(line, r.upper+address, data)
	}
	split := wrap - int(address)
	if err := r.add(line, r.upper+address, data[:split]); err != nil {
		return err
	}
	return r.add(line, r.upper, data[split:])
}

func firstByte(record []byte) byte {
	if len(record) == 0 {
		return 0
	}
	return record[0]
}

func sumOf(record []byte) byte {
	sum := byte(0)
	for _, b := range record {
		sum += b
	}
	return sum
}

// sAddress is how many bytes the address of an S-record has, by its type; 0 for a type that is not known.
var sAddress = [10]int{2, 2, 3, 4, 0, 2, 3, 4, 3, 2}

// readSRecord reads "S", type, count, address, data and checksum.
func readSRecord(r *records, line int, text []byte) error {
	if text[0]|0x20 != 's' || len(text) < 2 || text[1] < '0' || text[1] > '9' || sAddress[text[1]-'0'] == 0 {
		return wrong(line, "does not start with S and the figure of a type, as S1")
	}
	kind := text[1] - '0'
	record, err := bytesOf(line, text[2:])
	if err != nil {
		return err
	}
	width := sAddress[kind]
	if len(record) < width+2 || len(record) != int(record[0])+1 {
		return wrong(line, "announces %d bytes and holds %d: it was cut off, or bytes were lost", firstByte(record),
			max(0, len(record)-1))
	}
	if sum := sumOf(record) + 1; sum != 0 {
		return wrong(line, "its checksum is %02X and ought to be %02X: a character was changed", record[len(record)-1],
			record[len(record)-1]-sum)
	}
	address := uint32(0)
	for _, b := range record[1 : 1+width] {
		address = address<<8 | uint32(b)
	}
	switch kind {
	case 1, 2, 3:
		return r.add(line, address, record[1+width:len(record)-1])
	case 5, 6:
		if int(address) != r.counted {
			return wrong(line, "counts %d data records; there are %d before it: lines are missing", address, r.counted)
		}
	case 7, 8, 9:
		r.ended = true
	}
	return nil
}

func hexRecords(base uint32, data []byte) []byte {
	out := &bytes.Buffer{}
	upper := uint32(0)
	for at := 0; at < len(data); {
		address := base + uint32(at) //nolint:gosec // checked by Encode
		if address>>16 != upper {
			upper = address >> 16
			putHexRecord(out, 0, hexLinear, []byte{byte(upper >> 8), byte(upper)})
		}
		// A record does not go beyond a boundary of 64 KiB: readers wrap there.
		n := min(inRecord, len(data)-at, 1<<16-int(address&0xffff))
		putHexRecord(out, uint16(address), hexData, data[at:at+n]) //nolint:gosec // the lower half
		at += n
	}
	putHexRecord(out, 0, hexEnd, nil)
	return out.Bytes()
}

func putHexRecord(out *bytes.Buffer, address uint16, kind byte, data []byte) {
	record := append([]byte{byte(len(data)), byte(address >> 8), byte(address), kind}, data...)
	fmt.Fprintf(out, ":%X%02X\r\n", record, -sumOf(record))
}

func sRecords(base uint32, data []byte) []byte {
	out := &bytes.Buffer{}
	putSRecord(out, 0, 2, 0, []byte("HERON"))
	// The shortest addresses that reach the end.
	kind, width := 1, 2
	end := uint64(base) + uint64(max(1, len(data))) - 1
	for end >= 1<<(8*width) {
		kind, width = kind+1, width+1
	}
	count := 0
	for at := 0; at < len(data); at += inRecord {
		putSRecord(out, kind, width, base+uint32(at),
			data[at:min(at+inRecord, len(data))]) //nolint:gosec // checked by Encode
		count++
	}
	if count < 1<<16 {
		putSRecord(out, 5, 2, uint32(count), nil) //nolint:gosec // checked
	}
	putSRecord(out, 10-kind, width, base, nil)
	return out.Bytes()
}

func putSRecord(out *bytes.Buffer, kind, width int, address uint32, data []byte) {
	record := []byte{byte(width + len(data) + 1)}
	for shift := 8 * (width - 1); shift >= 0; shift -= 8 {
		record = append(record, byte(address>>shift))
	}
	record = append(record, data...)
	fmt.Fprintf(out, "S%d%X%02X\r\n", kind, record, ^sumOf(record))
}
