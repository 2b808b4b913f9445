package pg

import (
	"fmt"
	"strings"
)

// AnyWord joins the conditions of a search; a search without words finds everything.
func AnyWord(where string) string {
	if strings.TrimSpace(where) == "" {
		return "true"
	}
	return where
}

// LikeAll writes the condition that a column in lower case holds all words, behind other arguments of
// a statement.
func LikeAll(column string, words []string, args []any) (string, []any) {
	where := make([]string, len(words))
	for i, word := range words {
		args = append(args, "%"+LikeEscaper.Replace(strings.ToLower(word))+"%")
		where[i] = fmt.Sprintf("%s LIKE $%d", column, len(args))
	}
	return strings.Join(where, " AND "), args
}

// LikeEscaper writes words so that LIKE takes them as they are.
var LikeEscaper = strings.NewReplacer(`\`, `\\`, `%`, `\%`, `_`, `\_`)

// Holding writes patterns of texts that hold words somewhere.
func Holding(words []string) []string {
	patterns := make([]string, len(words))
	for i, word := range words {
		patterns[i] = "%" + LikeEscaper.Replace(word) + "%"
	}
	return patterns
}
