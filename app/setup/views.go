package setup

import (
	"fmt"

	"frugalheron/app/action"
	"frugalheron/core/configuration"
	"frugalheron/core/known"
	"frugalheron/store/setup"
)

// ConfiguredCard is a board or card as it was set.
type ConfiguredCard struct {
	AssemblyID *int64 `json:"assemblyId,omitempty" doc:"Left out where it is none of ours"`
	Title      string `json:"title" says:"text" maxLength:"200"`
	Slot       string `json:"slot" maxLength:"100" required:"false"`
	Settings   string `json:"settings" says:"text" maxLength:"4000" required:"false" doc:"Jumpers and switches, a line each: JP3 1-2, SW1 on on off, SW2.3 off; ? for a switch that nobody saw"`
}

// ConfiguredFile is a start-up, host or driver file.
type ConfiguredFile struct {
	Name string `json:"name" says:"text" maxLength:"200"`
	Text string `json:"text" says:"text" maxLength:"60000"`
}

// ConfigurationInput is how a machine was set up on a day.
type ConfigurationInput struct {
	Title    string           `json:"title" says:"text" maxLength:"200" example:"with the second drive"`
	Kind     string           `json:"kind" enum:"as found,working,restored,changed,other" default:"other" required:"false"`
	On       string           `json:"on" maxLength:"10" required:"false" doc:"YYYY-MM-DD; today when it is left out"`
	Cards    []ConfiguredCard `json:"cards" nullable:"false" maxItems:"64" required:"false"`
	Firmware string           `json:"firmware" says:"text" maxLength:"8000" required:"false" doc:"What the firmware keeps in a chip, a line each: drive C = type 17"`
	Media    string           `json:"media" says:"text" maxLength:"4000" required:"false" doc:"What is in the drives, a line each"`
	Files    []ConfiguredFile `json:"files" nullable:"false" maxItems:"20" required:"false"`
	Note     string           `json:"note" says:"text" maxLength:"2000" required:"false"`
}

// Configuration is that, with what its settings mean.
type Configuration struct {
	ID        int64 `json:"id"`
	MachineID int64 `json:"machineId"`
	ConfigurationInput
	Meanings [][]configuration.Meaning `json:"meanings" doc:"Of each card: what its settings mean"`
	Version  int                       `json:"version"`
}

// CardToday is a board or card that is fitted, with what its record says of its settings.
type CardToday struct {
	AssemblyID int64           `json:"assemblyId"`
	Title      string          `json:"title" says:"text"`
	Slot       string          `json:"slot"`
	Known      string          `json:"known" says:"text" doc:"What the library knows it as; empty for nothing"`
	Settings   []known.Setting `json:"settings" doc:"Its jumpers and switches, by that record"`
}

// Setup is how a machine is set up, and was.
type Setup struct {
	Configurations []Configuration        `json:"configurations" doc:"The newest first"`
	Cards          []CardToday            `json:"cards" doc:"What is fitted today"`
	Since          []configuration.Change `json:"since" doc:"In which cards it is not as the newest configuration says"`
	Batteries      []string               `json:"batteries" says:"text" doc:"Where its sheets have a battery, which may keep settings"`
	HasFirmware    bool                   `json:"hasFirmware" doc:"What the firmware keeps is written down"`
}

// SetupDifference is what makes one way of setting a machine up into another.
type SetupDifference struct {
	From    string                 `json:"from" says:"text"`
	To      string                 `json:"to" says:"text"`
	Changes []configuration.Change `json:"changes" doc:"In the order in which they are made"`
}

// ReadSettings is what settings mean while they are written.
type ReadSettings struct {
	Meanings []configuration.Meaning    `json:"meanings"`
	Problems []configuration.BrokenLine `json:"problems"`
}

func tell(row setup.Configuration) Configuration {
	kept, _ := action.ReadKept[ConfigurationInput](row.Body) // written by this package alone
	kept.On = row.On
	kept.Cards, kept.Files = append([]ConfiguredCard{}, kept.Cards...), append([]ConfiguredFile{}, kept.Files...)
	return Configuration{ID: row.ID, MachineID: row.MachineID, ConfigurationInput: kept, Version: row.Version,
		Meanings: [][]configuration.Meaning{}}
}

// told is what the history keeps of one: a field a card.
func (in ConfigurationInput) told() map[string]any {
	fields := map[string]any{"title": in.Title, "kind": in.Kind, "on": in.On, "firmware": in.Firmware,
		"media": in.Media,
		"note":  in.Note}
	for i, c := range in.Cards {
		name := "card " + c.Title
		if _, twice := fields[name]; twice {
			name = fmt.Sprintf("%s (%d)", name, i+1)
		}
		fields[name] = fmt.Sprintf("slot %s: %s", c.Slot, c.Settings)
	}
	for _, f := range in.Files {
		fields["file "+f.Name] = f.Text
	}
	return fields
}

// snapshot is what the rules of the job compare. What is kept was checked.
func (in ConfigurationInput) snapshot() configuration.Snapshot {
	s := configuration.Snapshot{Media: configuration.ParseMedia(in.Media)}
	s.Firmware, _ = configuration.ParseFirmware(in.Firmware)
	for _, c := range in.Cards {
		card := configuration.Card{Title: c.Title, Slot: c.Slot}
		if c.AssemblyID != nil {
			card.ID = *c.AssemblyID
		}
		card.Settings, _ = configuration.ParseSettings(c.Settings)
		s.Cards = append(s.Cards, card)
	}
	for _, f := range in.Files {
		s.Files = append(s.Files, configuration.File(f))
	}
	return s
}
