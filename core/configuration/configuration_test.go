package configuration_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/configuration"
	"frugalheron/core/known"
)

const ofCard = `jumper JP2 | 1-2 = irq 3 | 2-3 = irq 4 | open = no interrupt
switch SW1 | on on on = io 300-31F | on on off = io 320-33F | off x on = unused
switch SW2.1-2 | 10 = 300 baud | 01 = 1200 baud
switch SW2.3 | on = parity checked | off = no parity
switch SW3 | 0 = first drive | 1 = second drive | 2 = third drive
`

func decoded(t testing.TB, record, found string) []string {
	t.Helper()
	details, problems := known.ParseDetails(record)
	require.Empty(t, problems)
	settings, wrong := configuration.ParseSettings(found)
	require.Empty(t, wrong)
	told := []string{}
	for _, m := range configuration.Decode(details.Settings, settings) {
		line := fmt.Sprintf("%d %s [%s] %s: %s", m.Line, m.Name, m.At, m.State, strings.Join(m.Means, " or "))
		if m.Why != "" {
			line += " (" + m.Why + ")"
		}
		told = append(told, line)
	}
	return told
}

func TestSettingsThatWereFoundAreDecoded(t *testing.T) {
	for name, c := range map[string]struct {
		found string
		told  []string
	}{
		"jumper":            {"JP2 2-3", []string{"1 JP2 [2-3] known: irq 4"}},
		"the other way":     {"jp2: 2-1", []string{"1 JP2 [2-1] known: irq 3"}},
		"none on it":        {"JP2 removed", []string{"1 JP2 [removed] known: no interrupt"}},
		"no such position":  {"JP2 3-4", []string{"1 JP2 [3-4] unknown:  (the record names no such position)"}},
		"no such jumper":    {"JP9 1-2", []string{"1 JP9 [1-2] unknown:  (the record of the card does not name it)"}},
		"a block":           {"SW1 on on off", []string{"1 SW1 [on on off] known: io 320-33F"}},
		"in figures":        {"SW1 110", []string{"1 SW1 [on on off] known: io 320-33F"}},
		"one that is equal": {"SW1 0 1 1", []string{"1 SW1 [off on on] known: unused"}},
		"of another size":   {"SW1 on on off off", []string{"1 SW1 [on on off off] unknown:  (the record speaks of 3 switches, 4 were found; one of them is not right)"}},
		"one unseen":        {"SW1 on on ?", []string{"1 SW1 [on on ?] several: io 300-31F or io 320-33F (not all of its switches were seen)"}},
		"a part of it":      {"SW1.2 on", []string{"1 SW1 [? on ?] several: io 300-31F or io 320-33F or unused (not all of its switches were seen)"}},
		"groups and rest":   {"SW2 off on on off", []string{"1 SW2.1-2 [off on] known: 1200 baud", "1 SW2.3 [on] known: parity checked", "1 SW2.4 [off] unknown:  (the record of the card does not name it)"}},
		"a rotary switch":   {"SW3 2", []string{"1 SW3 [2] known: third drive"}},
		"rotary, as row":    {"SW3 1", []string{"1 SW3 [1] known: second drive"}},
		"with remarks":      {"# as found\n\nJP2 1-2 # bent", []string{"3 JP2 [1-2] known: irq 3"}},
		"a resource":        {"irq 1\nJP2 1-2", []string{"1 irq [1] known: irq 1", "2 JP2 [1-2] known: irq 3"}},
		"up and down":       {"SW1 up up down", []string{"1 SW1 [up up down] unknown:  (the record of the card does not name it)"}},
		"single, by single": {"SW2.1 on\nSW2.2 off", []string{"1 SW2.1-2 [on off] known: 300 baud"}},
	} {
		assert.Equal(t, c.told, decoded(t, ofCard, c.found), name)
	}
	assert.Equal(t, []string{"1 SW1 [on off] unknown:  (nothing is known of its settings)"}, decoded(t, "", "SW1 10"))
	assert.Equal(t, []string{"1 JP1 [1-2] several: a or b (the record gives this position more than one meaning)"},
		decoded(t, "jumper JP1 | 1-2 = a | 2-1 = b", "JP1 1-2"))
}

func TestRecordsThatDifferAreBothTold(t *testing.T) {
	one, _ := known.ParseDetails("jumper JP2 | 1-2 = irq 3 | 2-3 = irq 4\njumper JP5 | on = slow")
	other, _ := known.ParseDetails("jumper JP2 | 1-2 = irq 5 | 2-3 = irq 4")
	found, _ := configuration.ParseSettings("JP2 1-2\nJP5 on\nJP7 1-2")
	told := configuration.DecodeBy([][]known.Setting{one.Settings, other.Settings}, found)
	require.Len(t, told, 3)
	assert.Equal(t, []string{"irq 3", "irq 5"}, told[0].Means)
	assert.Equal(t, configuration.Several, told[0].State)
	assert.Equal(t, configuration.Several, told[1].State, "only one of them knows it")
	assert.Equal(t, configuration.Unknown, told[2].State)
	found, _ = configuration.ParseSettings("JP2 2-3")
	told = configuration.DecodeBy([][]known.Setting{one.Settings, other.Settings}, found)
	assert.Equal(t, configuration.Known, told[0].State, "about this both say the same")
	assert.Equal(t, configuration.Unknown, configuration.DecodeBy(nil, found)[0].State)
}

func TestWhatIsNoSettingIsToldByItsLine(t *testing.T) {
	for text, why := range map[string]string{"JP1": "does not say where it stands",
		"JP1 on\njp1 off": "again, as line 1 does",
		"SW1.1-3 on off":  "says how 2 switches stand; SW1.1-3 names 3", "SW1 on off\nSW1.2 on": "SW1.2 stands, as line 1 does"} {
		_, problems := configuration.ParseSettings(text)
		require.Len(t, problems, 1, text)
		assert.Contains(t, problems[0].Message, why)
	}
	entries, problems := configuration.ParseFirmware("drive C = type 17\ndate: off # flat cell\nDRIVE c = 2\nnothing\npassword =")
	assert.Equal(t, []configuration.Entry{{"drive C", "type 17"}, {"date", "off"}, {"password", ""}}, entries)
	require.Len(t, problems, 2)
	assert.Equal(t, 3, problems[0].Line)
	assert.Equal(t, []string{"drive A = starter disk"}, configuration.ParseMedia("\n drive A =  starter disk # grey\n"))
}

func snapshot(cards []configuration.Card, firmware, media string, files ...configuration.File) configuration.Snapshot {
	s := configuration.Snapshot{Cards: cards, Media: configuration.ParseMedia(media), Files: files}
	s.Firmware, _ = configuration.ParseFirmware(firmware)
	return s
}

func card(id int64, title, slot, settings string) configuration.Card {
	read, _ := configuration.ParseSettings(settings)
	return configuration.Card{ID: id, Title: title, Slot: slot, Settings: read}
}

func TestWhatMakesOneSetupIntoAnother(t *testing.T) {
	from := snapshot([]configuration.Card{card(1, "Main board", "", "JP3 1-2"), card(2, "Disk card", "2",
		"SW1 on on off\nJP2 1-2"),
		card(3, "Modem", "4", "")}, "drive C = type 17\nboot = A", "drive A = games",
		configuration.File{Name: "START", Text: "a\nb\n"})
	to := snapshot([]configuration.Card{card(1, "Main board, cleaned", "", "JP3 2-1"), card(2, "Disk card", "5",
		"SW1.2 off\nJP2 2-3\nJP8 on"),
		card(4, "Clock card", "", "")}, "drive C = type 2\ndate = on", "drive A = starter",
		configuration.File{Name: "START", Text: "a\nc"}, configuration.File{Name: "HOSTS", Text: "x"})
	told := []string{}
	for _, c := range configuration.Between(from, to) {
		told = append(told, fmt.Sprintf("%s %t %s", c.Of, c.Open, c.Do))
	}
	assert.Equal(t, []string{"card false take out Modem from slot 4", "card false put in Clock card",
		"card false move Disk card from slot 2 to slot 5",
		"setting false Disk card: set SW1.2 from on to off", "setting false Disk card: set JP2 from 1-2 to 2-3",
		"setting true Disk card: set JP8 to on; how it stands nobody noted",
		"firmware false change drive C from type 17 to type 2 in the setup of the firmware",
		"firmware true enter date = on in the setup of the firmware; how it is nobody noted",
		"medium false take out: drive A = games", "medium false put in: drive A = starter",
		"file false change START", "file true write HOSTS; what it holds nobody noted"}, told)
	assert.Empty(t, configuration.Between(to, to))
}

// What is equal differs in nothing, and a setup that is reached by its own list is reached.
func TestADifferenceLeadsThere(t *testing.T) {
	names := rapid.SampledFrom([]string{"JP1", "JP2", "SW1.1", "SW1.2", "SW2"})
	at := rapid.SampledFrom([]string{"1-2", "2-3", "open", "on", "off"})
	draw := func(t *rapid.T, label string) map[string]string { return rapid.MapOf(names, at).Draw(t, label) }
	text := func(settings map[string]string) string {
		lines := ""
		for name, at := range settings {
			lines += name + " " + at + "\n"
		}
		return lines
	}
	rapid.Check(t, func(t *rapid.T) {
		from, to := draw(t, "from"), draw(t, "to")
		of := func(settings map[string]string) configuration.Snapshot {
			return snapshot([]configuration.Card{card(1, "Card", "", text(settings))}, "", "")
		}
		for _, c := range configuration.Between(of(from), of(to)) {
			if _, noted := from[c.What]; noted == c.Open {
				t.Fatalf("%s is open: %t", c.What, c.Open)
			}
			from[c.What] = c.To
		}
		for _, c := range configuration.Between(of(from), of(to)) {
			t.Fatalf("still to do: %s", c.Do)
		}
	})
}

func TestResourcesThatASettingGives(t *testing.T) {
	assert.Equal(t, []configuration.Resource{{"irq", "3"}, {"io", "300-31F"}},
		configuration.Resources("IRQ 3, io  300-31F, slow"))
	assert.Empty(t, configuration.Resources("256 KB"))
}

func FuzzDecode(f *testing.F) {
	f.Add(ofCard, "SW1 on ? off\nSW2.1 1\nJP2 2-1")
	f.Fuzz(func(t *testing.T, record, found string) {
		details, _ := known.ParseDetails(record)
		settings, _ := configuration.ParseSettings(found)
		for _, m := range configuration.Decode(details.Settings, settings) {
			if (m.State == configuration.Known) != (len(m.Means) == 1 && m.Why == "") {
				t.Fatalf("%+v", m)
			}
			if m.Line < 1 {
				t.Fatalf("%+v is on no line", m)
			}
		}
		if len(configuration.Between(configuration.Snapshot{Cards: []configuration.Card{{ID: 1, Settings: settings}}},
			configuration.Snapshot{Cards: []configuration.Card{{ID: 1, Settings: settings}}})) > 0 {
			t.Fatal("it differs from itself")
		}
	})
}

func TestASettingThatStandsOtherwise(t *testing.T) {
	text := "# as found\nJP2 1-2 # bent\nSW1 on off on\nSW2.1-2 on on\nirq 3"
	assert.Equal(t, "# as found\nSW1 on off on\nSW2.1-2 on on\nirq 3\njp2 2-3", configuration.With(text, nil, "jp2", "2-3"))
	assert.Equal(t, "# as found\nJP2 1-2 # bent\nSW1.1 on\nSW1.3 on\nSW2.1-2 on on\nirq 3\nSW1.2 on", configuration.With(text, nil, "SW1.2", "on"))
	assert.Equal(t, "# as found\nJP2 1-2 # bent\nSW2.1-2 on on\nirq 3\nSW1 off off off", configuration.With(text, nil, "SW1", "off off off"))
	assert.Equal(t, "# as found\nSW1 on off on\nSW2.2 on\nirq 4", configuration.With(text, []string{"JP2", "SW2.1"}, "irq", "4"))
	assert.Equal(t, "JP1 on", configuration.With("", nil, "JP1", "on"))
	rapid.Check(t, func(t *rapid.T) {
		names := rapid.SampledFrom([]string{"JP1", "SW1", "SW1.2", "SW1.1-3", "SW2"})
		lines := rapid.SliceOf(rapid.Custom(func(t *rapid.T) string {
			return names.Draw(t, "name") + " " + rapid.SampledFrom([]string{"on", "on off", "1-2",
				"on off on"}).Draw(t, "at")
		})).Draw(t, "lines")
		before, _ := configuration.ParseSettings(strings.Join(lines, "\n"))
		good := []string{}
		for _, s := range before {
			good = append(good, s.Name+" "+s.At)
		}
		name := names.Draw(t, "which")
		at := map[string]string{"SW1.2": "off", "SW1.1-3": "off on off"}[name]
		if at == "" {
			at = "off on"
		}
		after, problems := configuration.ParseSettings(configuration.With(strings.Join(good, "\n"), nil, name, at))
		if len(problems) > 0 || after[len(after)-1].Name != name {
			t.Fatalf("%q with %s %s: %v", good, name, at, problems)
		}
	})
}

// A block may be told in parts, by groups that overlap, and by records of which one alone knows a part: nothing is said twice, and
// nothing is left out.
func TestEverySwitchIsToldOnce(t *testing.T) {
	for name, c := range map[string]struct{ record, found, told string }{
		"groups side by side":  {"switch SW1.1-2 | 00 = a | 11 = b\nswitch SW1.3-4 | 01 = c | 10 = d", "SW1 1101", "SW1.1-2 b, SW1.3-4 c"},
		"one of a group":       {"switch SW1.1-2 | 00 = a | 01 = b", "SW1.1 off", "SW1.1-2 a/b"},
		"none of it":           {"switch SW1.3 | on = a", "SW1.1 off", "SW1.1 "},
		"all alike":            {"switch SW1 | xx = a", "SW1 01", "SW1 a"},
		"another size":         {"switch SW1 | 000 = a", "SW1 00", "SW1 "},
		"of the whole, singly": {"switch SW1 | 00 = a | 01 = b", "SW1.2 on\nSW1.1 off", "SW1 b"},
		"jumper that is a row": {"jumper JP1 | 101 = a", "JP1 on off on", "JP1 a"},
	} {
		details, problems := known.ParseDetails(c.record)
		require.Empty(t, problems, name)
		settings, wrong := configuration.ParseSettings(c.found)
		require.Empty(t, wrong, name)
		told := []string{}
		for _, m := range configuration.Decode(details.Settings, settings) {
			told = append(told, m.Name+" "+strings.Join(m.Means, "/"))
		}
		assert.Equal(t, c.told, strings.Join(told, ", "), name)
	}
}
