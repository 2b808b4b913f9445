package picture

import (
	"encoding/binary"
	"image"
	"image/color"
)

// MostMemory is how much decoding a picture may take, in bytes. A process has no more than that for all
// pictures it decodes at a time.
const MostMemory = 360 << 20

// Bytes a pixel while a picture is decoded, by what the decoders in use hold at once. They err on the side
// of more.
const (
	heicBytes     = 14   // planes in the decoder, their copy, and ours
	webpLossless  = 8    // pixels, and the transforms of them
	webpLossy     = 1.5  // luma and two quarters of chroma
	webpAlpha     = 9    // alpha is decoded as a lossless picture, then copied
	jpegCoeffs    = 4    // a progressive JPEG keeps its coefficients, four bytes a sample
	unknownSample = 16   // what is not understood
	drawnBytes    = 4    // a view that is drawn anew
	megabyte      = 1e6  // as people count
	jpegMarkers   = 4096 // markers looked at before a frame
)

// memoryOf estimates from the header how many bytes decoding takes.
func memoryOf(mediaType string, data []byte, config image.Config) int64 {
	pixels := float64(config.Width) * float64(config.Height)
	each := float64(unknownSample)
	switch mediaType {
	case "image/jpeg":
		each = jpegBytes(data)
	case "image/png":
		each = pngBytes(data, config.ColorModel)
	case "image/webp":
		each = webpBytes(data)
	case "image/heic":
		each = heicBytes
	}
	return int64(pixels * each)
}

// pngBytes: transparency may add a channel to what the header says; an interlaced picture is put together
// from passes that are pictures of their own.
func pngBytes(data []byte, model color.Model) float64 {
	const depthAt, interlaceAt = 24, 28
	if len(data) <= interlaceAt {
		return unknownSample
	}
	each := 4.0
	if _, isPaletted := model.(color.Palette); isPaletted {
		each = 1
	} else if data[depthAt] == 16 {
		each = 8
	}
	if data[interlaceAt] != 0 {
		each *= 2
	}
	return each
}

func webpBytes(data []byte) float64 {
	const chunkAt, flagsAt, alpha = 12, 20, 0x10
	if len(data) <= flagsAt {
		return unknownSample
	}
	switch string(data[chunkAt : chunkAt+4]) {
	case "VP8 ":
		return webpLossy
	case "VP8X":
		if data[flagsAt]&alpha == 0 {
			return webpLossless // it says neither lossy nor lossless
		}
		return webpLossy + webpAlpha
	}
	return webpLossless
}

// jpegBytes reads the frame: its sampling, and whether the picture is progressive.
func jpegBytes(data []byte) float64 {
	isRGB := false
	for at, looked := 2, 0; at+4 <= len(data) && looked < jpegMarkers; looked++ {
		if data[at] != 0xff {
			at++
			continue
		}
		marker := data[at+1]
		if marker == 0xff || marker == 0 || marker == 1 || marker >= 0xd0 && marker <= 0xd8 {
			at++
			continue
		}
		length := int(binary.BigEndian.Uint16(data[at+2:]))
		if length < 2 {
			return unknownSample
		}
		segment := data[at+4 : min(at+2+length, len(data)) : len(data)]
		switch {
		case marker == 0xee && len(segment) >= 12 && string(segment[:5]) == "Adobe":
			isRGB = segment[11] == 0
		case marker >= 0xc0 && marker <= 0xc2:
			return frameBytes(segment, marker == 0xc2, isRGB)
		case marker == 0xda:
			return unknownSample
		}
		at += 2 + length
	}
	return unknownSample
}

func frameBytes(frame []byte, isProgressive, isRGB bool) float64 {
	const componentsAt, componentSize = 5, 3
	if len(frame) <= componentsAt {
		return unknownSample
	}
	n := int(frame[componentsAt])
	if n == 0 || n > 4 || len(frame) < componentsAt+1+n*componentSize {
		return unknownSample
	}
	widest, samples := 0, 0
	for i := range n {
		sampling := frame[componentsAt+2+i*componentSize]
		area := int(sampling>>4) * int(sampling&15)
		widest, samples = max(widest, area), samples+area
	}
	if widest == 0 {
		return unknownSample
	}
	each := float64(samples) / float64(widest)
	if isProgressive {
		each += jpegCoeffs * each
	}
	// Four inks, or red, green and blue kept as they are, are copied into a picture of their own.
	if names := string([]byte{frame[componentsAt+1], frame[min(componentsAt+4, len(frame)-1)]}); n == 4 || n == 3 &&
		(isRGB || names == "RG") {
		each += drawnBytes
	}
	return each
}

// FullBytes is how many bytes making a view of all pixels takes.
func (f File) FullBytes() int64 { return f.Memory + int64(f.Width)*int64(f.Height)*drawnBytes }

func tooLarge(width, height int, needed int64) error {
	return refuse("the picture is %d x %d pixels and would take %.0f MB of memory to read; up to %.0f MB are taken. "+
		"Save it smaller, or with 8 bits a colour", width, height, float64(needed)/megabyte,
		float64(MostMemory)/megabyte)
}
