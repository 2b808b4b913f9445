package inventory

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"regexp"
	"slices"
	"strings"
	"time"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/accession"
	"frugalheron/store/arrivals"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
)

// Collection reads the settings of the collection.
func (s *Service) Collection(ctx context.Context, actor action.Actor) (Collection, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return Collection{}, err
	}
	row, err := inventory.ReadCollection(ctx, s.kernel.Reader(ctx))
	return collectionOf(row), err
}

// CurrencyForm is how currencies are written: three capitals, as ISO 4217 has them.
var CurrencyForm = regexp.MustCompile(`^[A-Z]{3}$`)

// theCollection is by what the history knows the one that there is.
const theCollection = 1

var collections = action.Records[inventory.Collection, Collection]{
	What: "the collection",
	Lock: func(ctx context.Context, h pg.Handle, _ int64) (inventory.Collection, error) {
		return inventory.LockCollection(ctx, h)
	},
	Read: func(ctx context.Context, h pg.Handle, _ int64) (inventory.Collection, error) {
		return inventory.ReadCollection(ctx, h)
	},
	Version: func(c inventory.Collection) int { return c.Version },
	Told:    func(c inventory.Collection) any { return CollectionInput(c.CollectionFields) },
	View:    collectionOf,
}

// ChangeCollection rewrites the settings of the collection, starting from a version.
func (s *Service) ChangeCollection(ctx context.Context, actor action.Actor, version int,
	fields CollectionInput) (Collection, error) {
	fields.Currency = strings.ToUpper(strings.TrimSpace(fields.Currency))
	if err := input.CheckAll(input.OneLine("name", &fields.Name),
		input.OneLine("timeZone", &fields.TimeZone)); err != nil {
		return Collection{}, err
	}
	if _, err := accession.ParsePattern(fields.AccessionPattern); err != nil {
		return Collection{}, action.Reject("accessionPattern", err.Error())
	}
	if !CurrencyForm.MatchString(fields.Currency) {
		return Collection{}, action.Reject("currency", "write its three letters, as EUR")
	}
	if _, err := action.ZoneOf(fields.TimeZone); err != nil {
		return Collection{}, action.Reject("timeZone",
			err.Error()+"; choose one of the list, as Europe/Lisbon")
	}
	change := action.Change{Actor: actor, Roles: action.MayKeepTheRecord, Event: eventChangeCollection,
		ID: theCollection, Version: version}
	return collections.Change(ctx, s.kernel, change, func(tx *sqlx.Tx, before inventory.Collection) error {
		fields.TimeZone = cmp.Or(fields.TimeZone, before.TimeZone)
		fields.SupplyMonths = cmp.Or(fields.SupplyMonths, 12) // rule of thumb, as the gate has it
		return inventory.UpdateCollection(ctx, tx, inventory.CollectionFields(fields))
	})
}

// NextNumber is the accession number that the next thing gets.
type NextNumber struct {
	Number  string `json:"number"`
	Pattern string `json:"pattern"`
}

// NobodyIn is no actor in particular, who counts days as the collection does: for what follows from records without anybody
// at work.
func NobodyIn(ctx context.Context, h pg.Handle) (action.Actor, error) {
	collection, err := inventory.ReadCollection(ctx, h)
	if err != nil {
		return action.Actor{}, err
	}
	zone, err := action.ZoneOf(collection.TimeZone)
	if err != nil {
		zone = time.UTC // as for everybody who is at work
	}
	return action.Actor{Zone: zone}, nil
}

// NextNumber proposes the number for a thing of an arrival (0 for none). It is given once the machine is
// entered: two people may be proposed the same, and only one gets it.
func (s *Service) NextNumber(ctx context.Context, actor action.Actor, acquisitionID int64) (NextNumber, error) {
	if err := actor.Must(action.MayKeepTheRecord); err != nil {
		return NextNumber{}, err
	}
	pattern, err := PatternOf(ctx, s.kernel.Reader(ctx))
	if err != nil {
		return NextNumber{}, err
	}
	year, lot := actor.ThisYear(), 0
	if acquisitionID != 0 {
		acquired, err := arrivals.AcquisitionByID(ctx, s.kernel.Reader(ctx), acquisitionID)
		if err != nil {
			return NextNumber{}, err
		}
		if arrived := input.DateOf(acquired.Arrived); arrived != nil {
			year = arrived.Earliest().Year
		}
		if acquired.Lot != nil {
			lot = *acquired.Lot
		}
	}
	given, err := inventory.NumbersLike(ctx, s.kernel.Reader(ctx), "")
	if err != nil {
		return NextNumber{}, err
	}
	return NextNumber{pattern.Write(pattern.Next(numbersOf(given), year, lot)), pattern.String()}, nil
}

// PatternOf reads the pattern of the collection's accession numbers.
func PatternOf(ctx context.Context, h pg.Handle) (accession.Pattern, error) {
	c, err := inventory.ReadCollection(ctx, h)
	if err != nil {
		return accession.Pattern{}, err
	}
	return accession.ParsePattern(c.AccessionPattern)
}

func numbersOf(given []inventory.GivenNumber) []string {
	numbers := make([]string, len(given))
	for i, g := range given {
		numbers[i] = g.Number
	}
	return numbers
}

// giveNumber notes that a machine has its number, or refuses one that another thing has or had.
func giveNumber(ctx context.Context, tx *sqlx.Tx, machine inventory.Machine) error {
	ok, err := inventory.GiveNumber(ctx, tx, machine.Accession, machine.ID)
	if err == nil && !ok {
		return action.Reject("accession",
			machine.Accession+" was given before, and a number is never given twice; take the next one")
	}
	return err
}

// Register is what is known of the numbers that were given.
type Register struct {
	Pattern   string          `json:"pattern"`
	Given     int             `json:"given" doc:"Numbers that were ever given or noted"`
	Gaps      []accession.Gap `json:"gaps" doc:"Numbers that were passed over and that nobody has explained"`
	Explained []GivenNumber   `json:"explained" doc:"Numbers that no machine has today, with the reason"`
}

// Register lists the gaps in the collection's numbers.
func (s *Service) Register(ctx context.Context, actor action.Actor) (Register, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return Register{}, err
	}
	pattern, err := PatternOf(ctx, s.kernel.Reader(ctx))
	if err != nil {
		return Register{}, err
	}
	given, err := inventory.NumbersLike(ctx, s.kernel.Reader(ctx), "")
	if err != nil {
		return Register{}, err
	}
	r := Register{Pattern: pattern.String(), Given: len(given), Gaps: pattern.Gaps(numbersOf(given)),
		Explained: []GivenNumber{}}
	for _, g := range given {
		if g.MachineID == nil || g.Accession != g.Number {
			if g.Note == "" && g.Accession != "" {
				g.Note = "given to what is " + g.Accession + " today"
			}
			r.Explained = append(r.Explained, GivenNumber(g))
		}
	}
	return r, nil
}

// NumberLine is what became of a line of a list of numbers.
type NumberLine struct {
	Line   int    `json:"line"`
	Number string `json:"number"`
	Note   string `json:"note" says:"text"`
	Wrong  string `json:"wrong" doc:"Why it cannot be taken over, or empty"`
}

// mostNumbers bounds a list.
const mostNumbers = 50_000

// ImportNumbers takes numbers over that an older register gave, a line each with what is known of the
// thing behind it, divided by ; or a tab. Such a number is never given again. A dry run keeps nothing.
func (s *Service) ImportNumbers(ctx context.Context, actor action.Actor, text string,
	dryRun bool) ([]NumberLine, error) {
	if err := actor.Must(action.MayKeepTheRecord); err != nil {
		return nil, err
	}
	found := []NumberLine{}
	seen := map[string]int{}
	n := 0
	for line := range strings.Lines(text) {
		n++
		number, note, _ := strings.Cut(strings.ReplaceAll(line, "\t", ";"), ";")
		one := NumberLine{Line: n, Number: strings.TrimSpace(number), Note: strings.TrimSpace(note)}
		if one.Number == "" && one.Note == "" {
			continue
		}
		switch before := seen[one.Number]; {
		case one.Number == "":
			one.Wrong = "no number at the start of the line"
		case len(one.Number) > 40:
			one.Wrong = "a number has at most 40 characters"
		case input.NoControl("number", one.Number+one.Note, "") != nil:
			one.Wrong = "a control character; take it out"
		case before > 0:
			one.Wrong = fmt.Sprintf("stands in line %d already", before)
		}
		seen[one.Number] = n
		if one.Note == "" {
			one.Note = "from an older register"
		}
		found = append(found, one)
		if len(found) > mostNumbers {
			return nil, action.Reject("text", fmt.Sprintf("more than %d numbers; split the list", mostNumbers))
		}
	}
	errDry := errors.New("dry run")
	err := s.kernel.Do(ctx, actor, action.MayKeepTheRecord, func(tx *sqlx.Tx) error {
		if _, err := inventory.LockCollection(ctx, tx); err != nil {
			return err
		}
		for i := range found {
			if found[i].Wrong != "" {
				continue
			}
			ok, err := inventory.NoteNumber(ctx, tx, found[i].Number, found[i].Note)
			if err != nil {
				return err
			}
			if !ok {
				found[i].Wrong = "a machine of the collection has it, or had it"
			}
		}
		if dryRun {
			return errDry
		}
		taken := len(found) - len(slices.DeleteFunc(slices.Clone(found), func(l NumberLine) bool {
			return l.Wrong == ""
		}))
		return action.Record(ctx, tx, actor, eventImportNumbers, 1, nil, nil, map[string]int{"count": taken})
	})
	if errors.Is(err, errDry) {
		err = nil
	}
	return found, err
}
