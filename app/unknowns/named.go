package unknowns

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/library"
	"frugalheron/core/known"
	"frugalheron/store/unknowns"
)

// nameBy names what a question about a card, a board or another unit was about by its answer, and returns the record of
// the library; 0 where the subject is nothing by which it could be recognised, or is known already.
func (s *Service) nameBy(ctx context.Context, tx *sqlx.Tx, actor action.Actor, asked unknowns.Question,
	answer Answer) (int64, error) {
	switch {
	case !isAssembly(asked.Sort) && answer.Known != nil:
		return 0, action.Reject("known", "is for questions about cards, boards and other units")
	case !isAssembly(asked.Sort):
		return 0, nil
	case answer.Known != nil:
		added, err := library.AddKnown(ctx, tx, actor, *answer.Known)
		return added.ID, err
	}
	named := library.KnownInput{Kind: asked.Sort, Name: firstOf(answer.Answer, mostName), Source: answer.Source}
	if asked.Sort == "unit" {
		named.Kind = "other"
	}
	switch known.Names(asked.Subject) {
	case known.ByNumber:
		named.Numbers = asked.Subject
	case known.ByWords:
		named.Printed = asked.Subject
	default:
		return 0, nil
	}
	claimed, err := s.library.Knows(ctx, tx, asked.Subject)
	if err != nil || claimed {
		return 0, err
	}
	added, err := library.AddKnown(ctx, tx, actor, named)
	return added.ID, err
}

// mostName bounds what an assembly is called.
const mostName = 200

func firstOf(text string, most int) string {
	letters := []rune(text)
	return string(letters[:min(len(letters), most)])
}
