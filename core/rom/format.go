package rom

import (
	"bytes"

	"frugalheron/core/malformed"
)

// Format is how an image is written in a file.
type Format string

// Formats, named as the command line names them.
const (
	Binary     Format = "bin"
	HexRecords Format = "ihex" // records of hexadecimal figures that start with a colon
	SRecords   Format = "srec" // records that start with S
)

// Image is what a file holds.
type Image struct {
	Format Format
	Base   uint32 // address of the first byte; 0 for a binary file
	Data   []byte
	Gaps   int // bytes that no record gives; they are FF, as in a blank device
}

func wrong(line int, format string, args ...any) error {
	return malformed.At(line, format, args...)
}

// Decode reads an image from a file; the format is told by the content. A file that starts as records do
// is one: a bad record in it is an error that names the line.
func Decode(file []byte) (Image, error) {
	format := formatOf(file)
	if format == Binary {
		if len(file) > MaxBytes {
			return Image{}, wrong(0, "the file has %d bytes; an image has at most %d", len(file), MaxBytes)
		}
		return Image{Format: Binary, Data: file}, nil
	}
	// Two figures a byte, and a record may hold as little as one.
	if len(file) > 16*MaxBytes {
		return Image{}, wrong(0, "the file has %d bytes; records of an image have at most %d", len(file), 16*MaxBytes)
	}
	records := records{}
	read := readHexRecord
	if format == SRecords {
		read = readSRecord
	}
	number := 0
	for line := range bytes.Lines(onlyLineFeeds(file)) {
		number++
		line = bytes.TrimSpace(line)
		if len(line) == 0 || line[0] == 0x1a { // an end-of-file mark of old systems
			continue
		}
		if records.ended {
			return Image{}, wrong(number, "stands behind the record that ends the file")
		}
		if err := read(&records, number, line); err != nil {
			return Image{}, err
		}
	}
	if !records.ended {
		return Image{}, wrong(number, "the file ends without the record that ends it: it was cut off")
	}
	return records.image(format)
}

// onlyLineFeeds ends lines by line feeds alone: files of old systems end them by carriage returns.
func onlyLineFeeds(text []byte) []byte {
	if !bytes.ContainsRune(text, '\r') {
		return text
	}
	return bytes.ReplaceAll(bytes.ReplaceAll(text, []byte("\r\n"), []byte("\n")), []byte("\r"), []byte("\n"))
}

// formatOf tells records from anything else by the first lines: one of them may be damaged.
func formatOf(file []byte) Format {
	looked := 0
	for line := range bytes.Lines(onlyLineFeeds(file[:min(len(file), linesLooked*longestRecord)])) {
		line = bytes.TrimSpace(line)
		switch {
		case len(line) == 0:
			continue
		case len(line) >= 11 && line[0] == ':' && allHex(line[1:]):
			return HexRecords
		case len(line) >= 10 && (line[0] == 'S' || line[0] == 's') && '0' <= line[1] && line[1] <= '9' && allHex(line[2:]):
			return SRecords
		}
		if looked++; looked == linesLooked {
			break
		}
	}
	return Binary
}

// linesLooked is how many lines are looked at, and longestRecord how many characters one has at most: 255
// bytes in figures, with what stands around them.
const (
	linesLooked   = 4
	longestRecord = 530
)

func allHex(text []byte) bool {
	for _, b := range text {
		if _, ok := figure(b); !ok {
			return false
		}
	}
	return true
}

func figure(b byte) (byte, bool) {
	switch {
	case '0' <= b && b <= '9':
		return b - '0', true
	case 'A' <= b && b <= 'F':
		return b - 'A' + 10, true
	case 'a' <= b && b <= 'f':
		return b - 'a' + 10, true
	}
	return 0, false
}

// bytesOf reads pairs of figures.
func bytesOf(line int, text []byte) ([]byte, error) {
	if len(text)%2 != 0 {
		return nil, wrong(line, "has an odd number of figures: it was cut off")
	}
	read := make([]byte, len(text)/2)
	for i := range read {
		high, okHigh := figure(text[2*i])
		low, okLow := figure(text[2*i+1])
		if !okHigh || !okLow {
			return nil, wrong(line, "%q is no pair of hexadecimal figures", text[2*i:2*i+2])
		}
		read[i] = high<<4 | low
	}
	return read, nil
}

// Encode writes an image. Records count addresses from base.
func Encode(format Format, base uint32, data []byte) ([]byte, error) {
	if uint64(base)+uint64(len(data)) > 1<<32 {
		return nil, wrong(0, "the image would end behind the address FFFFFFFF")
	}
	switch format {
	case Binary:
		return data, nil
	case HexRecords:
		return hexRecords(base, data), nil
	case SRecords:
		return sRecords(base, data), nil
	}
	return nil, wrong(0, "the format %q is not known; use bin, ihex or srec", format)
}

// inRecord is how many bytes a record that we write holds.
const inRecord = 16
