package unknowns

import (
	"context"
	"slices"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/app/library"
	"frugalheron/app/signs"
	"frugalheron/core/device"
	"frugalheron/core/known"
	"frugalheron/core/marking"
	"frugalheron/core/reckoning"
	"frugalheron/store/inventory"
	storelibrary "frugalheron/store/library"
	"frugalheron/store/pg"
	"frugalheron/store/unknowns"
)

// Unknown is something that nobody knows yet: a chip by its number or marking with all its places, or
// something else that somebody asks about.
type Unknown struct {
	Sort     string         `json:"sort" enum:"chip,reading,card,board,unit,connector,switch,sign,other"`
	Subject  string         `json:"subject" says:"text" doc:"Number or marking; else what it is called"`
	Nameable bool           `json:"nameable" doc:"The subject can be a number in the library"`
	KnownBy  known.By       `json:"knownBy" enum:",number,words" doc:"By what a card, a board or another unit that is called so would be recognised; empty for nothing"`
	Parts    int            `json:"parts" doc:"Parts on all sheets that an answer would settle"`
	Machines int            `json:"machines" doc:"Machines that they are in"`
	Places   []UnknownEntry `json:"places" doc:"Lines of sheets"`
	Question *QuestionView  `json:"question" doc:"Null while nobody wrote about it"`
}

// Unknowns are what is open, and what was answered.
type Unknowns struct {
	Open     []Unknown      `json:"open" doc:"What would settle most first"`
	Answered []QuestionView `json:"answered"`
	More     bool           `json:"more" doc:"There are more lines with unknown chips than were looked at"`
}

// mostUnknown bounds the lines that are looked at.
const mostUnknown = 2000

// Unknowns lists what nobody knows yet, on a machine or, with 0, in the whole collection.
func (s *Service) Unknowns(ctx context.Context, actor action.Actor, machineID int64) (Unknowns, error) {
	u := Unknowns{Open: []Unknown{}, Answered: []QuestionView{}}
	if err := actor.Must(action.MayLook); err != nil {
		return u, err
	}
	library, err := s.library.Read(ctx)
	if err != nil {
		return u, err
	}
	lines, err := unknowns.ListUnknown(ctx, s.kernel.Reader(ctx), machineID, mostUnknown+1)
	if err != nil {
		return u, err
	}
	if len(lines) > mostUnknown {
		lines, u.More = lines[:mostUnknown], true
	}
	questions, err := s.toldQuestions(ctx, machineID)
	if err != nil {
		return u, err
	}
	u.group(library, lines)
	numbers, err := s.library.UnknownNumbers(ctx, s.kernel.Reader(ctx), machineID, mostUnknown+1)
	if err != nil {
		return u, err
	}
	if len(numbers) > mostUnknown {
		numbers, u.More = numbers[:mostUnknown], true
	}
	u.addNumbers(numbers)
	open, err := unknowns.ListFoundOpen(ctx, s.kernel.Reader(ctx), machineID, mostUnknown)
	if err != nil {
		return u, err
	}
	for _, c := range open {
		u.Open = append(u.Open, Unknown{Sort: "connector", Subject: c.Accession + " " + c.Name, Parts: 1, Machines: 1,
			Places: []UnknownEntry{{MachineID: &c.MachineID, Accession: c.Accession, Machine: c.Machine,
				Assembly: c.From, Count: 1, Kind: "connector", Marking: "found open"}}})
	}
	shown, err := s.signs.OpenSigns(ctx, s.kernel.Reader(ctx), machineID, mostUnknown)
	if err != nil {
		return u, err
	}
	u.addSigns(shown)
	u.take(questions, machineID)
	for i, one := range u.Open {
		if isAssembly(one.Sort) {
			u.Open[i].KnownBy = known.Names(one.Subject)
		}
	}
	slices.SortStableFunc(u.Open, func(a, b Unknown) int { return b.Parts - a.Parts })
	return u, nil
}

func (s *Service) toldQuestions(ctx context.Context, machineID int64) ([]QuestionView, error) {
	questions, err := unknowns.ListQuestions(ctx, s.kernel.Reader(ctx), machineID)
	if err != nil {
		return nil, err
	}
	ids := make([]int64, len(questions))
	for i, q := range questions {
		ids[i] = q.ID
	}
	guesses, err := unknowns.GuessesOf(ctx, s.kernel.Reader(ctx), ids)
	if err != nil {
		return nil, err
	}
	told := make([]QuestionView, len(questions))
	for i, q := range questions {
		told[i] = QuestionView{questionOf(q), []Guess{}}
		for _, g := range guesses {
			if g.QuestionID == q.ID {
				told[i].Guesses = append(told[i].Guesses, Guess{g.ID, g.Text, g.Reason, g.By, g.At})
			}
		}
	}
	return told, nil
}

// group puts lines together that one answer would settle.
func (u *Unknowns) group(library *device.Library, lines []unknowns.UnknownEntry) {
	index := map[[2]string]int{}
	for _, line := range lines {
		sort, subject := "chip", ""
		switch {
		case line.Kind == string(reckoning.Connector), line.Kind == string(reckoning.Switch):
			sort = line.Kind
		case line.Kind != string(reckoning.Chip):
			sort = "other"
		case line.Doubtful:
			sort = "reading"
		default:
			subject = marking.Nameable(library, strings.Fields(line.Marking))
		}
		nameable := subject != ""
		if !nameable {
			subject = line.Marking
		}
		if subject == "" || subject == "?" || line.Kind != string(reckoning.Chip) {
			// Nothing can be read of it: each is a question of its own.
			subject = strings.TrimSpace(line.Accession + " " + line.Assembly + " " + line.Designators)
		}
		key := [2]string{sort, subject}
		at, ok := index[key]
		if !ok {
			at = len(u.Open)
			index[key] = at
			u.Open = append(u.Open,
				Unknown{Sort: sort, Subject: subject, Nameable: nameable, Places: []UnknownEntry{}})
		}
		one := &u.Open[at]
		one.Parts += line.Count
		if line.MachineID != nil && !slices.ContainsFunc(one.Places, func(p UnknownEntry) bool {
			return p.MachineID != nil && *p.MachineID == *line.MachineID
		}) {
			one.Machines++
		}
		one.Places = append(one.Places, UnknownEntry(line))
	}
}

// addNumbers adds part numbers of assemblies that no record of the library knows.
func (u *Unknowns) addNumbers(numbers []storelibrary.NumberInUse) {
	for _, n := range numbers {
		sort := "unit"
		if n.Kind == "board" || n.Kind == "card" {
			sort = n.Kind
		}
		u.Open = append(u.Open, Unknown{Sort: sort, Subject: n.Part, Parts: n.Parts, Machines: n.Machines,
			Places: []UnknownEntry{{MachineID: n.MachineID, Accession: n.Accession, Machine: n.Machine,
				AssemblyID: n.AssemblyID, Assembly: n.Title, Count: n.Parts, Kind: n.Kind, Marking: n.Part}}})
	}
}

// addSigns adds what machines showed and nobody can read, once for those of a model.
func (u *Unknowns) addSigns(shown []signs.Sighting) {
	index := map[string]int{}
	for _, s := range shown {
		at, ok := index[s.Subject]
		if !ok {
			at = len(u.Open)
			index[s.Subject] = at
			u.Open = append(u.Open, Unknown{Sort: "sign", Subject: s.Subject, Places: []UnknownEntry{}})
		}
		one := &u.Open[at]
		one.Parts++
		if !slices.ContainsFunc(one.Places, func(p UnknownEntry) bool { return *p.MachineID == s.MachineID }) {
			one.Machines++
		}
		one.Places = append(one.Places, UnknownEntry{MachineID: &s.MachineID, Accession: s.Accession,
			Machine: s.Machine, Assembly: s.Assembly, Count: 1, Kind: string(s.Kind), Date: &s.On})
	}
}

// isAbout reports whether a question is about something unknown. Part numbers are one however they are written.
func (o Unknown) isAbout(q QuestionView) bool {
	if isAssembly(o.Sort) && isAssembly(q.Sort) {
		return known.Fold(o.Subject) == known.Fold(q.Subject)
	}
	return o.Sort == q.Sort && o.Subject == q.Subject
}

func isAssembly(sort string) bool { return sort == "card" || sort == "board" || sort == "unit" }

// take lays the questions beside what they are about. On a machine, those about a number that it does not
// hold are left out.
func (u *Unknowns) take(questions []QuestionView, machineID int64) {
	for i, q := range questions {
		at := slices.IndexFunc(u.Open, func(o Unknown) bool { return o.isAbout(q) })
		switch {
		case at >= 0:
			u.Open[at].Question = &questions[i]
		case machineID != 0 && q.MachineID == nil:
		case q.AnsweredOn != nil:
			u.Answered = append(u.Answered, q)
		default:
			u.Open = append(u.Open,
				Unknown{Sort: q.Sort, Subject: q.Subject, Places: []UnknownEntry{}, Question: &questions[i]})
		}
	}
}

// Ask writes about something unknown for the first time.
func (s *Service) Ask(ctx context.Context, actor action.Actor,
	fields QuestionInput) (Question, error) {
	var asked Question
	if err := checkQuestion(&fields); err != nil {
		return asked, err
	}
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if fields.MachineID != nil {
			if _, err := inventory.MachineByID(ctx, tx, *fields.MachineID); err != nil {
				return input.Missing(err, "machineId", "choose a machine of the collection")
			}
		}
		id, err := unknowns.InsertQuestion(ctx, tx, unknowns.QuestionFields(fields))
		if pg.Violates(err, "question_subject_key") {
			return action.Reject("subject", fields.Subject+" is asked about already; write there")
		}
		if err != nil {
			return err
		}
		if asked, err = questionByID(ctx, tx, id); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventAsk, id, fields.MachineID, nil, fields)
	})
	return asked, err
}

func checkQuestion(f *QuestionInput) error {
	err := input.CheckAll(input.OneLine("subject", &f.Subject), input.Lines("text", &f.Text),
		input.OneLine("asked", &f.Asked))
	if err == nil && f.Subject == "" {
		err = action.Reject("subject", "say what it is about, as: connector beside the supply")
	}
	return err
}

// ChangeQuestion rewrites what is asked and who was asked, starting from a version.
func (s *Service) ChangeQuestion(ctx context.Context, actor action.Actor, id int64, version int,
	text, asked string) (Question, error) {
	var changed Question
	if err := input.CheckAll(input.Lines("text", &text), input.OneLine("asked", &asked)); err != nil {
		return changed, err
	}
	err := s.onQuestion(ctx, actor, id, version, func(tx *sqlx.Tx, before unknowns.Question) error {
		fields := before.QuestionFields
		fields.Text, fields.Asked = text, asked
		if err := unknowns.UpdateQuestion(ctx, tx, id, fields); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventChangeQuestion, id, before.MachineID,
			QuestionInput(before.QuestionFields), QuestionInput(fields))
	})
	if err == nil {
		changed, err = questionByID(ctx, s.kernel.Reader(ctx), id)
	}
	return changed, err
}

var questions = action.Records[unknowns.Question, Question]{
	What: "the question", Lock: unknowns.LockQuestion, Read: unknowns.QuestionByID,
	Version: func(q unknowns.Question) int { return q.Version },
	View:    questionOf,
}

func (s *Service) onQuestion(ctx context.Context, actor action.Actor, id int64, version int,
	work func(tx *sqlx.Tx, before unknowns.Question) error) error {
	return s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		before, err := questions.Locked(ctx, tx, id, version)
		if err != nil {
			return err
		}
		return work(tx, before)
	})
}

// GuessAt notes what somebody thinks the answer could be, and why.
func (s *Service) GuessAt(ctx context.Context, actor action.Actor, id int64, text, reason string) error {
	if err := input.CheckAll(input.OneLine("text", &text), input.OneLine("reason", &reason)); err != nil {
		return err
	}
	switch {
	case text == "":
		return action.Reject("text", "say what it could be")
	case reason == "":
		return action.Reject("reason", "say why you think so; a guess without a reason cannot be weighed")
	}
	return s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		question, err := unknowns.LockQuestion(ctx, tx, id)
		if err != nil {
			return err
		}
		if err := unknowns.InsertGuess(ctx, tx, id, actor.Account(), text, reason); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventGuess, id, question.MachineID, nil,
			map[string]string{"subject": question.Subject, "guess": text, "reason": reason})
	})
}

// Answer settles a question.
type Answer struct {
	Answer string                `json:"answer" says:"text" maxLength:"1000"`
	Source string                `json:"source" says:"text" maxLength:"1000" doc:"Where the answer comes from"`
	Type   *library.OwnTypeInput `json:"type,omitempty" doc:"For a chip: the type that goes into the library"`
	Known  *library.KnownInput   `json:"known,omitempty" doc:"For a card, a board or another unit: what goes into the library; left out, it is named by the answer"`
}

// Settled is what an answer did.
type Settled struct {
	Question   Question `json:"question"`
	Recognised int      `json:"recognised" doc:"Parts on all sheets that are known by it now"`
	Machines   int      `json:"machines" doc:"Machines that they are in"`
	KnownID    int64    `json:"knownId" doc:"Of the record of the library that the answer wrote; 0 for none"`
}

// AnswerQuestion writes the answer to a question. A type that comes with it goes into the library: it is
// recognised on every sheet at once, old ones included, and the history of each machine says so. An answer about a card,
// a board or another unit names it in the library.
func (s *Service) AnswerQuestion(ctx context.Context, actor action.Actor, id int64, version int,
	answer Answer) (Settled, error) {
	var settled Settled
	err := input.CheckAll(input.OneLine("answer", &answer.Answer), input.OneLine("source", &answer.Source))
	switch {
	case err != nil:
		return settled, err
	case answer.Answer == "":
		return settled, action.Reject("answer", "say what it is")
	case answer.Source == "":
		return settled, action.Reject("source", "say where the answer comes from, so that it can be defended")
	}
	write := func(tx *sqlx.Tx) error {
		before, err := questions.Locked(ctx, tx, id, version)
		if err != nil {
			return err
		}
		day := actor.Today()
		if err := unknowns.AnswerQuestion(ctx, tx, id, answer.Answer, answer.Source, &day); err != nil {
			return err
		}
		if settled.KnownID, err = s.nameBy(ctx, tx, actor, before, answer); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventAnswerQuestion, id, before.MachineID, nil,
			map[string]string{"subject": before.Subject, "answer": answer.Answer, "source": answer.Source})
	}
	if answer.Type == nil {
		err = s.kernel.Do(ctx, actor, action.MayWriteSheets, write)
	} else {
		var named library.NamedType
		named, err = s.library.TypeAction(ctx, actor, library.EventNameType, answer.Type,
			func(tx *sqlx.Tx) (*storelibrary.OwnType, int64, error) {
				if err := write(tx); err != nil {
					return nil, 0, err
				}
				id, err := storelibrary.InsertOwnType(ctx, tx, 0, storelibrary.OwnTypeFields(*answer.Type))
				return nil, id, err
			})
		settled.Recognised, settled.Machines = named.Recognised, named.Machines
	}
	if err == nil {
		settled.Question, err = questionByID(ctx, s.kernel.Reader(ctx), id)
	}
	return settled, err
}
