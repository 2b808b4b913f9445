// Package setup is about how machines are set up: configurations, how they are operated, and how cards sit in them.
package setup

import (
	"context"
	"fmt"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/app/parts"
	"frugalheron/app/power"
	"frugalheron/core/configuration"
	"frugalheron/core/known"
	"frugalheron/core/verdict"
	storehistory "frugalheron/store/history"
	storeinventory "frugalheron/store/inventory"
	"frugalheron/store/pg"
	"frugalheron/store/setup"
)

// Service does what is done about them.
type Service struct {
	kernel    *action.Kernel
	library   *library.Service
	inventory *inventory.Service
	power     *power.Service
	parts     *parts.Service
}

// New returns it.
func New(kernel *action.Kernel, library *library.Service, inventory *inventory.Service,
	power *power.Service, parts *parts.Service) *Service {
	s := &Service{kernel, library, inventory, power, parts}
	kernel.CanBeUndone(eventVoid, action.MayWriteSheets, s.undoVoid)
	kernel.CanBeUndone(eventVoidCredential, action.MayKeepTheRecord, s.undoVoidCredential)
	return s
}

// mostFiles is how long the files of a configuration are together, in bytes.
const mostFiles = 200_000

// mostConfigurations bounds what is told of one machine.
const mostConfigurations = 100

var configurations = action.Records[setup.Configuration, Configuration]{What: "the configuration",
	Lock: setup.LockConfiguration, Read: setup.ConfigurationByID,
	Version: func(r setup.Configuration) int { return r.Version },
	Told:    func(r setup.Configuration) any { return tell(r).told() }, View: tell,
	Machine: func(r setup.Configuration) *int64 { return &r.MachineID }}

// Setup tells how a machine is set up, and was.
func (s *Service) Setup(ctx context.Context, actor action.Actor, machineID int64) (Setup, error) {
	told := Setup{Configurations: []Configuration{}, Cards: []CardToday{}, Since: []configuration.Change{}}
	if _, err := s.inventory.Machine(ctx, actor, machineID); err != nil {
		return told, err
	}
	h := s.kernel.Reader(ctx)
	rows, err := setup.Configurations(ctx, h, machineID, mostConfigurations)
	if err != nil {
		return told, err
	}
	told.Configurations = action.Views(rows, tell)
	if err := s.decode(ctx, h, told.Configurations); err != nil {
		return told, err
	}
	cards, err := s.today(ctx, h, machineID)
	if err != nil {
		return told, err
	}
	for _, c := range cards {
		told.Cards = append(told.Cards, c.CardToday)
	}
	kept, err := keptOf(ctx, h, machineID)
	told.Since, told.Batteries, told.HasFirmware = append(told.Since, kept.Since...), kept.Batteries, kept.HasFirmware
	return told, err
}

// recordsOf are those by which the settings of a card are read: the one that fits best, and others that say as firmly what it is.
type recordsOf struct {
	names    []string
	settings [][]known.Setting
	details  []known.Details
	isSure   bool
}

func (r recordsOf) decode(found []configuration.Setting) []configuration.Meaning {
	meanings := configuration.DecodeBy(r.settings, found)
	if !r.isSure && len(r.names) > 0 {
		return configuration.Unsure(meanings, r.names[0])
	}
	return meanings
}

// known reads those of some assemblies.
func (s *Service) known(ctx context.Context, h pg.Handle, ids []int64) (map[int64]recordsOf, error) {
	records := map[int64]recordsOf{}
	if len(ids) == 0 {
		return records, nil
	}
	recognised, err := s.library.RecognisedIn(ctx, h, ids)
	for _, r := range recognised {
		one := recordsOf{isSure: len(r.Claims) > 0 && r.Claims[0].Sure}
		for i, claim := range r.Claims {
			if i > 0 && !(r.IsDisputed && claim.Claims(r.Claims[0].Match)) {
				break
			}
			one.names = append(one.names, claim.Name)
			one.settings = append(one.settings, claim.Details.Settings)
			one.details = append(one.details, claim.Details)
		}
		records[r.AssemblyID] = one
	}
	return records, err
}

// decode tells of each configuration what its settings mean.
func (s *Service) decode(ctx context.Context, h pg.Handle, all []Configuration) error {
	ids, seen := []int64{}, map[int64]bool{}
	for _, c := range all {
		for _, card := range c.Cards {
			if card.AssemblyID != nil && !seen[*card.AssemblyID] {
				seen[*card.AssemblyID] = true
				ids = append(ids, *card.AssemblyID)
			}
		}
	}
	records, err := s.known(ctx, h, ids)
	if err != nil {
		return err
	}
	for i := range all {
		for _, card := range all[i].Cards {
			found, _ := configuration.ParseSettings(card.Settings)
			record := recordsOf{}
			if card.AssemblyID != nil {
				record = records[*card.AssemblyID]
			}
			all[i].Meanings = append(all[i].Meanings, record.decode(found))
		}
	}
	return nil
}

// cardToday is one with all that is known of it.
type cardToday struct {
	CardToday
	kind    string
	part    string
	version int
	records recordsOf
}

// today lists what is fitted in a machine.
func (s *Service) today(ctx context.Context, h pg.Handle, machineID int64) ([]cardToday, error) {
	assemblies, err := inventory.AssembliesOf(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	ids, cards := []int64{}, []cardToday{}
	for _, a := range assemblies {
		if !a.IsExterior() {
			ids = append(ids, a.ID)
			cards = append(cards, cardToday{kind: a.Kind, part: a.Part, version: a.Version,
				CardToday: CardToday{AssemblyID: a.ID, Title: a.Title, Slot: a.Slot, Settings: []known.Setting{}}})
		}
	}
	records, err := s.known(ctx, h, ids)
	for i := range cards {
		c := &cards[i]
		c.records = records[c.AssemblyID]
		if len(c.records.names) > 0 {
			c.Known, c.Settings = c.records.names[0], c.records.settings[0]
		}
	}
	return cards, err
}

// keptOf is how far it is written down how a machine is set up.
func keptOf(ctx context.Context, h pg.Handle, machineID int64) (configuration.Kept, error) {
	k := configuration.Kept{Batteries: []string{}}
	newest, err := setup.Noted(ctx, h, machineID, 1)
	if err != nil {
		return k, err
	}
	for _, row := range newest {
		one := tell(row)
		k.On = one.On
		now, err := todaysOf(ctx, h, machineID, one.ConfigurationInput)
		if err != nil {
			return k, err
		}
		for _, c := range configuration.Between(one.snapshot(), now) {
			if c.Of == configuration.OfCard {
				k.Since = append(k.Since, c)
			}
		}
	}
	if k.HasFirmware, err = setup.HasFirmware(ctx, h, machineID); err != nil {
		return k, err
	}
	found, err := setup.Batteries(ctx, h, machineID)
	for _, b := range found {
		k.Batteries = append(k.Batteries, fmt.Sprintf("%s on %s", b.Designator, b.Title))
	}
	return k, err
}

// todaysOf is a configuration with the cards that are fitted today, each set as it was in it.
func todaysOf(ctx context.Context, h pg.Handle, machineID int64, in ConfigurationInput) (configuration.Snapshot,
	error) {
	assemblies, err := inventory.AssembliesOf(ctx, h, machineID)
	s := in.snapshot()
	before := s.Cards
	s.Cards = nil
	for _, a := range assemblies {
		if a.IsExterior() {
			continue
		}
		now := configuration.Card{ID: a.ID, Title: a.Title, Slot: a.Slot}
		for _, c := range before {
			if c.ID == a.ID {
				now.Settings = c.Settings
			}
		}
		s.Cards = append(s.Cards, now)
	}
	return s, err
}

func (in *ConfigurationInput) check(actor action.Actor) error {
	in.Cards, in.Files = append([]ConfiguredCard{}, in.Cards...), append([]ConfiguredFile{}, in.Files...)
	if in.On == "" {
		in.On = actor.Today()
	}
	if in.Kind == "" {
		in.Kind = "other"
	}
	err := input.CheckAll(input.OneLine("title", &in.Title), input.PastDay("on", in.On, actor.Today()),
		input.Lines("firmware", &in.Firmware), input.Lines("media", &in.Media), input.Lines("note", &in.Note))
	if err == nil && in.Title == "" {
		err = action.Reject("title", "give it a name, as As found")
	}
	if err != nil {
		return err
	}
	for i := range in.Cards {
		c, at := &in.Cards[i], fmt.Sprintf("cards[%d]", i)
		err := input.CheckAll(input.OneLine(at+".title", &c.Title), input.OneLine(at+".slot", &c.Slot),
			input.Lines(at+".settings", &c.Settings))
		if err == nil && c.Title == "" {
			err = action.Reject(at+".title", "name the card")
		}
		if err != nil {
			return err
		}
		if _, problems := configuration.ParseSettings(c.Settings); len(problems) > 0 {
			return rejectLine(at+".settings", problems[0])
		}
	}
	if _, problems := configuration.ParseFirmware(in.Firmware); len(problems) > 0 {
		return rejectLine("firmware", problems[0])
	}
	names, length := map[string]bool{}, 0
	for i := range in.Files {
		f, at := &in.Files[i], fmt.Sprintf("files[%d]", i)
		err := input.CheckAll(input.OneLine(at+".name", &f.Name), input.NoControl(at+".text", f.Text, "\n\r\t"))
		switch {
		case err != nil:
			return err
		case f.Name == "":
			return action.Reject(at+".name", "name the file")
		case names[f.Name]:
			return action.Reject(at+".name", "there is another file "+f.Name)
		}
		names[f.Name] = true
		if length += len(f.Text); length > mostFiles {
			return action.Reject(at+".text", fmt.Sprintf("all files together are longer than %d bytes; leave out what starts nothing",
				mostFiles))
		}
	}
	return nil
}

func rejectLine(field string, p configuration.BrokenLine) error {
	return action.Reject(field, fmt.Sprintf("line %d %s", p.Line, p.Message))
}

// haveCards refuses boards that are not there.
func haveCards(ctx context.Context, tx *sqlx.Tx, in ConfigurationInput) error {
	for i, c := range in.Cards {
		if c.AssemblyID == nil {
			continue
		}
		_, err := storeinventory.AssemblyByID(ctx, tx, *c.AssemblyID)
		err = input.Missing(err, fmt.Sprintf("cards[%d].assemblyId", i), fmt.Sprintf("there is no board %d",
			*c.AssemblyID))
		if err != nil {
			return err
		}
	}
	return nil
}

// Keep writes down how a machine is, or was, set up.
func (s *Service) Keep(ctx context.Context, actor action.Actor, machineID int64,
	in ConfigurationInput) (Configuration, error) {
	var added Configuration
	if err := in.check(actor); err != nil {
		return added, err
	}
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := storeinventory.MachineByID(ctx, tx, machineID); err != nil {
			return err
		}
		var err error
		added, err = keep(ctx, tx, actor, machineID, in)
		return err
	})
	return s.decoded(ctx, added, err)
}

// keep adds one that was checked, in a transaction under way.
func keep(ctx context.Context, tx *sqlx.Tx, actor action.Actor, machineID int64,
	in ConfigurationInput) (Configuration, error) {
	if err := haveCards(ctx, tx, in); err != nil {
		return Configuration{}, err
	}
	id, err := setup.InsertConfiguration(ctx, tx, setup.Configuration{MachineID: machineID, On: in.On,
		Body: action.ToKeep(in)})
	if err != nil {
		return Configuration{}, err
	}
	row, err := setup.ConfigurationByID(ctx, tx, id)
	if err != nil {
		return Configuration{}, err
	}
	return tell(row), action.Record(ctx, tx, actor, eventAdd, id, &machineID, nil, tell(row).told())
}

// decoded is one with what its settings mean.
func (s *Service) decoded(ctx context.Context, one Configuration, err error) (Configuration, error) {
	if err != nil {
		return one, err
	}
	all := []Configuration{one}
	err = s.decode(ctx, s.kernel.Reader(ctx), all)
	return all[0], err
}

// Change rewrites one, starting from a version.
func (s *Service) Change(ctx context.Context, actor action.Actor, id int64, version int,
	in ConfigurationInput) (Configuration, error) {
	if err := in.check(actor); err != nil {
		return Configuration{}, err
	}
	changed, err := configurations.Change(ctx, s.kernel, action.Change{Actor: actor, Roles: action.MayWriteSheets,
		Event: eventChange, ID: id, Version: version}, func(tx *sqlx.Tx, before setup.Configuration) error {
		if before.Voided {
			return action.ErrNotFound
		}
		if err := haveCards(ctx, tx, in); err != nil {
			return err
		}
		return setup.UpdateConfiguration(ctx, tx, setup.Configuration{ID: id, On: in.On, Body: action.ToKeep(in)})
	})
	return s.decoded(ctx, changed, err)
}

var voided = action.Voiding[setup.Configuration]{Roles: action.MayWriteSheets, Event: eventVoid,
	Back:     eventTakeBackVoid,
	IsVoided: func(r setup.Configuration) bool { return r.Voided },
	Set: func(ctx context.Context, tx *sqlx.Tx, r setup.Configuration, voided bool) error {
		return setup.VoidConfiguration(ctx, tx, r.ID, voided)
	}}

// Void strikes one out that was written down by mistake.
func (s *Service) Void(ctx context.Context, actor action.Actor, id int64, version int) (event int64, err error) {
	return configurations.Void(ctx, s.kernel, actor, voided, id, version)
}

func (s *Service) undoVoid(ctx context.Context, actor action.Actor, e storehistory.EventRow) error {
	return configurations.Unvoid(ctx, s.kernel, actor, voided, e)
}

// Difference tells what makes one configuration of a machine into another; 0 is how it is today: the cards that are fitted, set
// as the newest configuration says.
func (s *Service) Difference(ctx context.Context, actor action.Actor, machineID, from, to int64) (SetupDifference,
	error) {
	told := SetupDifference{Changes: []configuration.Change{}}
	if _, err := s.inventory.Machine(ctx, actor, machineID); err != nil {
		return told, err
	}
	first, nameFirst, err := s.one(ctx, machineID, from, "from")
	if err != nil {
		return told, err
	}
	second, nameSecond, err := s.one(ctx, machineID, to, "to")
	told.From, told.To = nameFirst, nameSecond
	told.Changes = append(told.Changes, configuration.Between(first, second)...)
	return told, err
}

func (s *Service) one(ctx context.Context, machineID, id int64, field string) (configuration.Snapshot, string, error) {
	h := s.kernel.Reader(ctx)
	if id == 0 {
		rows, err := setup.Configurations(ctx, h, machineID, 1)
		if err != nil {
			return configuration.Snapshot{}, "", err
		}
		newest, name := ConfigurationInput{}, "today"
		if len(rows) > 0 {
			newest = tell(rows[0]).ConfigurationInput
			name = "today, set as on " + newest.On
		}
		now, err := todaysOf(ctx, h, machineID, newest)
		return now, name, err
	}
	row, err := setup.ConfigurationByID(ctx, h, id)
	if err == nil && (row.MachineID != machineID || row.Voided) {
		err = action.ErrNotFound
	}
	err = input.Missing(err, field, fmt.Sprintf("the machine has no configuration %d", id))
	one := tell(row)
	return one.snapshot(), one.Title + ", " + one.On, err
}

// ReadSettings tells what settings of a board mean while somebody writes them.
func (s *Service) ReadSettings(ctx context.Context, actor action.Actor, assemblyID int64,
	text string) (ReadSettings, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return ReadSettings{}, err
	}
	h := s.kernel.Reader(ctx)
	if _, err := storeinventory.AssemblyByID(ctx, h, assemblyID); err != nil {
		return ReadSettings{}, err
	}
	records, err := s.known(ctx, h, []int64{assemblyID})
	found, problems := configuration.ParseSettings(text)
	return ReadSettings{records[assemblyID].decode(found), problems}, err
}

// Verdicts are the lines of the reckoning that follow from how a machine is set up.
func (s *Service) Verdicts(ctx context.Context, actor action.Actor, machineID int64) ([]verdict.Verdict, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	h := s.kernel.Reader(ctx)
	kept, err := keptOf(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	slots, err := s.slotsVerdict(ctx, actor, machineID)
	return verdict.Telling(slots, configuration.VerdictOf(kept)), err
}
