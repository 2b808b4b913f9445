package rom_test

import (
	"bytes"
	"crypto/sha1"
	"crypto/sha256"
	"fmt"
	"hash/crc32"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/malformed"
	"frugalheron/core/rom"
)

// program makes content that is as varied as programs are, with a text in it.
func program(seed uint64, length int) []byte {
	chance := rand.New(rand.NewPCG(seed, 7))
	data := make([]byte, length)
	for i := range data {
		data[i] = byte(chance.NormFloat64()*40) ^ byte(i%7)
	}
	copy(data[length/3:], "BRACKWATER MONITOR V1.1\r\n(C) 1984, 86 BRACKWATER MICRO")
	return data
}

func faded(data []byte, n int, up bool) []byte {
	chance := rand.New(rand.NewPCG(uint64(n), 3))
	worn := slices.Clone(data)
	for changed := 0; changed < n; {
		at, bit := chance.IntN(len(worn)), byte(1)<<chance.IntN(8)
		from, to := max(0, at-64), min(len(worn), at+65)
		if worn[at] != data[at] || (worn[at]&bit == 0) != up || up && !slices.Equal(worn[from:to], data[from:to]) {
			continue
		}
		worn[at] ^= bit
		changed++
	}
	return worn
}

// ignoring reads data with an address line that has no contact.
func ignoring(data []byte, line int) []byte {
	read := make([]byte, len(data))
	for at := range read {
		read[at] = data[at&^(1<<line)]
	}
	return read
}

func ExampleInspect() {
	half := bytes.Repeat([]byte{0xff}, 2048)
	copy(half, "Copyright 1985 Tarn & Vole")
	i := rom.Inspect(append(half, half...), &rom.Device{Number: "2732", Bytes: 4096})
	fmt.Println(i.Bytes, i.EffectiveBytes, i.Repeats, i.BlankBytes, i.Years, i.Device.LengthMatch)
	fmt.Println(i.Texts[0].Offset, i.Texts[0].Text)
	fmt.Println(i.Warnings[0])
	// Output:
	// 4096 2048 2 4044 [1985] exact
	// 0 Copyright 1985 Tarn & Vole
	// The content stands there twice: it is 2048 bytes long. Either the device was too large for it, or A11 was not connected while it was read.
}

func TestInspection(t *testing.T) {
	one := program(1, 8192)
	i := rom.Inspect(one, nil)
	assert.Equal(t, fmt.Sprintf("%08x", crc32.ChecksumIEEE(one)), i.CRC32)
	assert.Equal(t, fmt.Sprintf("%x", sha1.Sum(one)), i.SHA1)
	assert.Equal(t, fmt.Sprintf("%x", sha256.Sum256(one)), i.SHA256)
	assert.Len(t, i.Sum16, 4)
	assert.Equal(t, []int{1984, 1986}, i.Years)
	assert.Empty(t, i.Warnings)
	assert.Nil(t, i.Device)
	for _, copies := range []int{2, 3, 4, 8} {
		i = rom.Inspect(bytes.Repeat(one, copies), nil)
		assert.Equal(t, copies, i.Repeats)
		assert.Equal(t, 8192, i.EffectiveBytes)
		assert.Empty(t, i.IgnoredAddressLines)
	}
	for line := range 12 {
		i = rom.Inspect(ignoring(one, line), nil)
		assert.Equal(t, []int{line}, i.IgnoredAddressLines)
		assert.Equal(t, 2, i.Repeats)
		assert.Equal(t, 4096, i.EffectiveBytes)
		assert.Contains(t, fmt.Sprint(i.Warnings), fmt.Sprintf("A%d", line))
	}
	stuck := slices.Clone(one)
	for at := range stuck {
		stuck[at] |= 0x20
		stuck[at] &^= 0x02
	}
	assert.Equal(t, []int{1, 5}, rom.Inspect(stuck, nil).StuckDataBits)
	for _, blank := range []byte{0x00, 0xff, 0x55} {
		i = rom.Inspect(bytes.Repeat([]byte{blank}, 2048), nil)
		assert.Equal(t, 1, i.Repeats)
		assert.Empty(t, i.IgnoredAddressLines)
		assert.Empty(t, i.StuckDataBits)
		assert.Contains(t, i.Warnings[0], "Every byte is")
	}
	assert.Equal(t, rom.Short, rom.Inspect(one, &rom.Device{Number: "27128", Bytes: 16384}).Device.LengthMatch)
	assert.Equal(t, rom.Long, rom.Inspect(one, &rom.Device{Number: "2716", Bytes: 2048}).Device.LengthMatch)
	assert.Contains(t, rom.Inspect(nil, nil).Warnings[0], "empty")
	gaps := slices.Concat(one[:100], bytes.Repeat([]byte{0xff}, 16), one[100:115], bytes.Repeat([]byte{0}, 15),
		one[200:230], bytes.Repeat([]byte{0}, 900))
	assert.Equal(t, []rom.Run{{From: 100, To: 116, Value: 0xff}, {From: 176, To: 1076, Value: 0}},
		rom.Inspect(gaps, nil).BlankRuns)
	years := []byte("\x07\x01\x02born 1979 in a barn\x00\x00\x00\x00\x00\x00Copyright\x00\x011983\x00\x02\x01\x01\x01\x01\x01made (C) 1985/87 and sold 1964")
	assert.Equal(t, []int{1983, 1985, 1987}, rom.Inspect(years, nil).Years)
	signed := []byte("\x00\x01\x02\x03\xa9 1984 BRACKWATER MICRO\x00\x01\x02\x01\x02\x01\x02\x01\x02\x01\x02\x01\x02\x01\x02\x01\x02\x01\x02\x01\x02 1986 BRACKWATER\x00")
	assert.Equal(t, []int{1984}, rom.Inspect(signed, nil).Years, "the sign of Latin-1")
	assert.Equal(t, "1.1b", rom.VersionIn("TARN MONITOR Ver. 1.1B, 1984"))
	assert.Empty(t, rom.VersionIn("1984"))
}

func TestComparison(t *testing.T) {
	a, other := program(1, 8192), program(2, 8192)
	newer := slices.Clone(a)
	copy(newer[2000:2600], other[2000:2600])
	moved := append(slices.Clone(a[64:]), other[:64]...)
	swap := slices.Clone(a)
	for i := 0; i < len(swap); i += 2 {
		swap[i], swap[i+1] = swap[i+1], swap[i]
	}
	oneBit := slices.Clone(a)
	for i := range oneBit {
		if i%3 == 0 {
			oneBit[i] &^= 0x10
		}
	}
	blanked := slices.Clone(a)
	copy(blanked[4000:], bytes.Repeat([]byte{0xff}, 20))
	padded := func(data []byte) []byte { return append(slices.Clone(data), bytes.Repeat([]byte{0xff}, 24576)...) }
	cases := []struct {
		name string
		a, b []byte
		want rom.Verdict
	}{
		{"itself", a, slices.Clone(a), rom.Identical},
		{"a copy behind itself", a, append(slices.Clone(a), a...), rom.SameContent},
		{"four copies against two", bytes.Repeat(a, 4), bytes.Repeat(a, 2), rom.SameContent},
		{"swapped lanes", a, swap, rom.LanesSwapped},
		{"an address line ignored", a, ignoring(a, 9), rom.UnreliableRead},
		{"and the other way round", ignoring(a, 0), a, rom.UnreliableRead},
		{"one data line at times", a, oneBit, rom.UnreliableRead},
		{"a bit of the second copy faded", append(slices.Clone(a), a...), append(slices.Clone(a), faded(a, 1, true)...),
			rom.ChargeLoss},
		{"a later version", a, newer, rom.Related},
		{"a stretch blanked", a, blanked, rom.Related},
		{"moved by 64 bytes", a, moved, rom.Related},
		{"a larger device around it", a, padded(a), rom.Related},
		{"unrelated", a, other, rom.Different},
		{"unrelated, mostly blank", padded(a), padded(other), rom.Different},
		{"nothing", nil, a, rom.Different},
	}
	for n := 1; n <= 40; n++ {
		cases = append(cases, struct {
			name string
			a, b []byte
			want rom.Verdict
		}{fmt.Sprintf("%d bits faded", n), a, faded(a, n, true), rom.ChargeLoss})
		cases = append(cases, struct {
			name string
			a, b []byte
			want rom.Verdict
		}{fmt.Sprintf("%d bits of noise", n), a, faded(a, n, false), rom.UnreliableRead})
	}
	for _, c := range cases {
		got := rom.Compare(c.a, c.b)
		assert.Equal(t, c.want, got.Verdict, "%s: %s", c.name, got.Note)
		assert.Equal(t, c.want == rom.Identical, got.FirstOffset == nil, c.name)
	}
	patched := slices.Clone(a)
	for i := 1000; i < 1064; i += 63 {
		patched[i] = 0xff
	}
	assert.NotEqual(t, rom.ChargeLoss, rom.Compare(a, patched).Verdict, "bytes near each other are a patch as well")
	worn := rom.Compare(a, faded(a, 40, true))
	assert.Equal(t, 40, worn.Bits0to1)
	assert.Zero(t, worn.Bits1to0)
	assert.Contains(t, worn.Note, "40 bits")
}

// Files of old systems end lines by a carriage return alone, and write figures in lower case.
func TestRecordsOfOldSystems(t *testing.T) {
	data := []byte{1, 2, 3, 0xab}
	for _, format := range []rom.Format{rom.HexRecords, rom.SRecords} {
		file, err := rom.Encode(format, 0, data)
		require.NoError(t, err)
		for _, ending := range []string{"\r", "\n", "\r\n"} {
			old := []byte(strings.ToLower(strings.ReplaceAll(string(file), "\r\n", ending)))
			image, err := rom.Decode(old)
			require.NoError(t, err, "%q", old)
			require.Equal(t, data, image.Data)
			require.Equal(t, format, image.Format)
		}
	}
}

func TestFormats(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		data := rapid.SliceOfN(rapid.Byte(), 1, 600).Draw(t, "data")
		base := rapid.SampledFrom([]uint32{0, 0x10, 0xfff8, 0xf0000, 0xfffff8, 0xfffff000}).Draw(t, "base")
		for _, format := range []rom.Format{rom.HexRecords, rom.SRecords} {
			file, err := rom.Encode(format, base, data)
			require.NoError(t, err)
			image, err := rom.Decode(file)
			require.NoError(t, err)
			require.Equal(t, rom.Image{Format: format, Base: base, Data: data}, image)
			// A changed character is found, and its line named.
			lines := bytes.Count(file, []byte("\n"))
			at := rapid.IntRange(0, len(file)-1).Draw(t, "at")
			if file[at] < '0' || at > 0 && file[at-1] == 'S' || at == 0 {
				return
			}
			broken := slices.Clone(file)
			broken[at] = "123456789ABCDEF0"[bytes.IndexByte([]byte("0123456789ABCDEF"), max(file[at], '0'))&15]
			_, err = rom.Decode(broken)
			var wrong *malformed.Error
			require.ErrorAs(t, err, &wrong)
			require.Positive(t, wrong.Line)
			require.LessOrEqual(t, wrong.Line, lines)
		}
	})
	for text, want := range map[string]string{
		":0300300002337A1E\n:00000001FF":                                     "",
		":0300300002337A1F\n:00000001FF":                                     "line 1: its checksum is 1F and ought to be 1E",
		":0300300002337A1E":                                                  "the file ends without the record that ends it",
		":0300300002337A1E\n:0300300002337A\n:00000001FF":                    "line 2: announces 3 bytes and holds 2",
		":0300300002337A1E\n:0300300002337\n:00000001FF":                     "line 2: has an odd number of figures",
		":0300300002337A1E\n:00000001FF\n:0300300002337A1E":                  "line 3: stands behind the record that ends the file",
		":0300300002337A1E\n0300300002337A1E\n:00000001FF":                   "line 2: does not start with a colon",
		":0300300002337A1E\n:0300300002347A1D\n:00000001FF":                  "line 2: gives another byte for address 31",
		":0300300002337A1E\n:020000040FFFEC\n:0300300002337A1E\n:00000001FF": "line 3: the data reaches from address 30 to FFF0032",
		"S10600300233781C\nS9030000FC":                                       "",
		"S10600300233781D\nS9030000FC":                                       "line 1: its checksum is 1D and ought to be 1C",
		"S10600300233781C\nS5030002FA\nS9030000FC":                           "line 2: counts 2 data records; there are 1",
		"S10600300233781C\nS4030000FC":                                       "line 2: does not start with S",
	} {
		image, err := rom.Decode([]byte(text))
		if want == "" {
			require.NoError(t, err, text)
			continue
		}
		require.ErrorContains(t, err, want, text)
		require.Empty(t, image.Format, text)
	}
	image, err := rom.Decode([]byte(":02000002F0000C\n:02FFFF001122CD\n:00000001FF"))
	require.NoError(t, err) // it wraps within its segment, and leaves a gap
	require.Equal(t, uint32(0xf0000), image.Base)
	require.Equal(t, 65534, image.Gaps)
	_, err = rom.Decode(make([]byte, rom.MaxBytes+1))
	require.ErrorContains(t, err, "at most 16777216")
	_, err = rom.Encode("tape", 0, nil)
	require.ErrorContains(t, err, "bin, ihex or srec")
	_, err = rom.Encode(rom.SRecords, 0xffffffff, []byte{1, 2})
	require.ErrorContains(t, err, "FFFFFFFF")
}

func TestLanes(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		lanes := rapid.IntRange(2, 8).Draw(t, "lanes")
		data := rapid.SliceOf(rapid.Byte()).Draw(t, "data")
		dealt, err := rom.Split(data, lanes)
		if len(data)%lanes != 0 {
			require.ErrorContains(t, err, "left over")
			return
		}
		require.NoError(t, err)
		merged, err := rom.Merge(dealt)
		require.NoError(t, err)
		require.True(t, bytes.Equal(data, merged))
	})
	_, err := rom.Split(nil, 1)
	require.Error(t, err)
	_, err = rom.Merge([][]byte{{1}, {1, 2}})
	require.ErrorContains(t, err, "lane 1 has 2 bytes")
}

func TestMapAndCode(t *testing.T) {
	data := slices.Concat(program(3, 4096), bytes.Repeat([]byte{0xff}, 2048),
		bytes.Repeat([]byte("All hands to the ropes. "), 86)[:2048])
	i := rom.Inspect(data, nil)
	cells := rom.MapOf(data, i, 64)
	require.Len(t, cells.Kinds, 128)
	require.Equal(t, byte(rom.CellCode), cells.Kinds[2])
	require.Equal(t, byte(rom.CellBlank), cells.Kinds[70])
	require.Equal(t, byte(rom.CellText), cells.Kinds[97])
	twice := append(slices.Clone(data), data...)
	require.Equal(t, byte(rom.CellRepeated), rom.MapOf(twice, rom.Inspect(twice, nil), 64).Kinds[130])
	require.Equal(t, "0a", rom.DifferingCells(data[:32], data[:16], 16).Kinds)

	vectors := slices.Clone(data)
	copy(vectors[len(vectors)-6:], []byte{0x10, 0xe1, 0x00, 0xe0, 0x40, 0xe2})
	vectors[0] = 0x78
	fits := rom.StartMatches(vectors)
	require.Equal(t, "low byte first", fits[0].Order)
	require.Equal(t, "E000", fits[0].Vectors[0].To)
	require.Equal(t, 0, fits[0].Vectors[0].Leads)
	table := slices.Clone(data)
	for at := 0; at < 30; at += 3 {
		copy(table[at:], []byte{0xc3, byte(at), 0x01})
	}
	require.Len(t, rom.JumpTable(table).Vectors, 10)
	require.Equal(t, "8 bits, starts at address 0", rom.StartMatches(table)[0].Kind)
	require.Nil(t, rom.JumpTable(data))
	require.Empty(t, rom.StartMatches(nil))
}

func FuzzDecode(f *testing.F) {
	f.Add([]byte(":0300300002337A1E\r\n:00000001FF\r\n"))
	f.Add([]byte("S10600300233781C\nS5030001FB\nS9030000FC"))
	f.Add(program(1, 300))
	f.Fuzz(func(t *testing.T, file []byte) {
		image, err := rom.Decode(file)
		if err != nil {
			require.NotEmpty(t, err.Error())
			return
		}
		for _, format := range []rom.Format{rom.HexRecords, rom.SRecords} {
			written, err := rom.Encode(format, image.Base, image.Data)
			require.NoError(t, err)
			again, err := rom.Decode(written)
			require.NoError(t, err)
			require.True(t, bytes.Equal(image.Data, again.Data))
		}
		i := rom.Inspect(image.Data, nil)
		require.Equal(t, i.Bytes, i.EffectiveBytes*i.Repeats)
		require.NotPanics(t, func() {
			rom.StartMatches(image.Data)
			rom.JumpTable(image.Data)
			rom.MapOf(image.Data, i, 16)
		})
		c := rom.Compare(image.Data, slices.Clone(image.Data))
		require.Equal(t, rom.Identical, c.Verdict)
		last := -1
		for _, r := range i.BlankRuns {
			require.Greater(t, r.From, last)
			require.GreaterOrEqual(t, r.To-r.From, 16)
			last = r.To - 1
		}
	})
}

// What an inspection takes beside the hashes alone, over 1 MiB.
func BenchmarkInspect(b *testing.B) {
	data := program(1, 1<<20)
	copy(data[300_000:], bytes.Repeat([]byte{0xff}, 200_000))
	copy(data[700_000:], bytes.Repeat([]byte("All hands to the ropes.\r\n"), 2000))
	b.Run("hashes alone", func(b *testing.B) {
		b.SetBytes(int64(len(data)))
		for b.Loop() {
			crc32.ChecksumIEEE(data)
			sha1.Sum(data)
			sha256.Sum256(data)
		}
	})
	b.Run("inspection", func(b *testing.B) {
		b.SetBytes(int64(len(data)))
		for b.Loop() {
			rom.Inspect(data, nil)
		}
	})
	b.Run("map", func(b *testing.B) {
		i := rom.Inspect(data, nil)
		for b.Loop() {
			rom.MapOf(data, i, 64)
		}
	})
	b.Run("comparison of unrelated", func(b *testing.B) {
		other := program(2, 1<<20)
		for b.Loop() {
			rom.Compare(data, other)
		}
	})
}

// Two copies that are the same but for a few bits are told, as a read that went wrong or two versions; what is blank is
// not nearly the same as anything, and content that repeats is told as that.
func TestNearlyTheSameTwice(t *testing.T) {
	one := program(1, 4096)
	near := slices.Concat(one, one)
	near[4096+700] ^= 0x11
	near[900] ^= 0x80
	i := rom.Inspect(near, nil)
	require.Equal(t, &rom.NearRepeat{Line: 12, DifferingBytes: 2, DifferingBits: 3, FirstOffset: 700}, i.NearRepeat)
	require.Equal(t, 1, i.Repeats)
	require.Contains(t, i.Warnings[0],
		"A12 low and high the content is the same but for 2 bytes (3 bits), the first at 2BC and 12BC")
	four := slices.Concat(near, near)
	require.NotNil(t, rom.Inspect(four, nil).NearRepeat, "within one copy of what repeats")
	few := bytes.Repeat([]byte{0xff}, 8192)
	copy(few, "one line of text")
	for _, data := range [][]byte{one, slices.Concat(one, one), slices.Concat(one, program(2, 4096)), few, {}} {
		require.Nil(t, rom.Inspect(data, nil).NearRepeat)
	}
}
