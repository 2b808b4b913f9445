package pack_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"frugalheron/core/pack"
)

func TestCompareTellsWhatIsAddedAndWhatContradicts(t *testing.T) {
	here := pack.Fields{"model": "Meridian 2", "made": "1984/1987", "note": "",
		"facts": "processor = HX9040 | handbook\nslots = 5 | seen", "signs": "row power\nlamps 1 | ready | waits",
		"figures": "+5 = 4.9 .. 5.2 V\ndisk size <= 504 MiB"}
	for name, c := range map[string]struct {
		pack   pack.Fields
		state  pack.State
		diff   []pack.Unlike
		merged map[string]string
	}{
		"the same, spelled otherwise": {pack.Fields{"model": "MERIDIAN  2", "facts": "slots = 5 | seen", "made": ""},
			pack.Same, []pack.Unlike{}, nil},
		"another source": {pack.Fields{"facts": "Processor = hx9040 | price list"}, pack.Adds,
			[]pack.Unlike{{Field: "facts", Pack: "Processor = hx9040 | price list"}},
			map[string]string{"facts": "processor = HX9040 | handbook\nslots = 5 | seen\nProcessor = hx9040 | price list"}},
		"another fact": {pack.Fields{"facts": "slots = 4 | leaflet\ncolours = 4 | leaflet"}, pack.Beside,
			[]pack.Unlike{{Field: "facts", Here: "slots = 5 | seen", Pack: "slots = 4 | leaflet"},
				{Field: "facts", Pack: "colours = 4 | leaflet"}},
			map[string]string{"facts": "processor = HX9040 | handbook\nslots = 5 | seen\ncolours = 4 | leaflet"}},
		"another meaning of a sign": {pack.Fields{"signs": "lamps 1 | ready | fails"}, pack.Beside,
			[]pack.Unlike{{Field: "signs", Here: "lamps 1 | ready | waits", Pack: "lamps 1 | ready | fails"}}, nil},
		"a sign for another card": {pack.Fields{"signs": "lamps 1 | ready | fails | | | with 4424"}, pack.Adds,
			[]pack.Unlike{{Field: "signs", Pack: "lamps 1 | ready | fails | | | with 4424"}}, nil},
		"other lamps": {pack.Fields{"signs": "row power, run"}, pack.Beside,
			[]pack.Unlike{{Field: "signs", Here: "row power", Pack: "row power, run"}}, nil},
		"another limit": {pack.Fields{"figures": "disk size <= 1 GiB"}, pack.Beside,
			[]pack.Unlike{{Field: "figures", Here: "disk size <= 504 MiB", Pack: "disk size <= 1 GiB"}}, nil},
		"another window": {pack.Fields{"made": "1985/1987"}, pack.Beside,
			[]pack.Unlike{{Field: "made", Here: "1984/1987", Pack: "1985/1987"}},
			map[string]string{"made": "1984/1987"}},
		"a note where there is none": {pack.Fields{"note": "two fans"}, pack.Adds,
			[]pack.Unlike{{Field: "note", Pack: "two fans"}}, map[string]string{"note": "two fans"}},
	} {
		state, diff, merged := pack.Compare(pack.Model, here, c.pack)
		assert.Equal(t, c.state, state, name)
		assert.Equal(t, c.diff, diff, name)
		for field, want := range c.merged {
			assert.Equal(t, want, merged[field], name)
		}
	}
}

func TestLinesOfKnownAssemblies(t *testing.T) {
	here := pack.Fields{"details": "jumper JP1 | 1-2 = 256 KB\nneeds card | 4424\nmemory 384 KB | main\ncurrent +5 | 1 A",
		"chips": "8x 41256\n74LS245"}
	compare := func(details, chips string) (pack.State, int) {
		state, differences, _ := pack.Compare(pack.Known, here, pack.Fields{"details": details, "chips": chips})
		return state, len(differences)
	}
	for _, c := range []struct {
		details, chips string
		state          pack.State
	}{
		{"jumper JP1 | 1-2 = 512 KB", "", pack.Beside},
		{"jumper JP2 | 1-2 = parity", "", pack.Adds},
		{"needs card | 4430", "", pack.Adds},
		{"memory 512 KB | main", "", pack.Beside},
		{"memory 64 KB | picture", "", pack.Adds},
		{"current +5 | 1.2 A", "", pack.Beside},
		{"current +5 | 1 A", "9x 41256", pack.Beside},
		{"", "74LS245\n74LS138", pack.Adds},
	} {
		state, n := compare(c.details, c.chips)
		assert.Equal(t, c.state, state, c)
		assert.Equal(t, 1, n, c)
	}
}
