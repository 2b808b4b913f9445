package store_test

import (
	"go/ast"
	"go/parser"
	"go/token"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"frugalheron/store/storetest"
)

// Every statement whose text is known before it runs is prepared by the database: each names tables and columns that
// there are, and its parameters have types.
func TestEveryStatementCanBePrepared(t *testing.T) {
	db := storetest.New(t)
	found, dynamic := statementsIn(t)
	require.Greater(t, len(found), 200)
	for place, statement := range found {
		_, err := db.Exec(`PREPARE one AS ` + statement)
		if assert.NoError(t, err, "%s: %s", place, statement) {
			_, err = db.Exec(`DEALLOCATE one`)
			require.NoError(t, err)
		}
	}
	// Those that are put together at run time are few, and tested where they are.
	require.Less(t, dynamic, 40)
}

// statementsIn reads the statements of the packages below from their sources, by the place where they are called.
func statementsIn(t *testing.T) (found map[string]string, dynamic int) {
	files := token.NewFileSet()
	names, err := filepath.Glob("*/*.go")
	require.NoError(t, err)
	var parsed []*ast.File
	for _, name := range names {
		if strings.HasSuffix(name, "_test.go") {
			continue
		}
		file, err := parser.ParseFile(files, name, nil, 0)
		require.NoError(t, err)
		parsed = append(parsed, file)
	}
	constants := map[string]ast.Expr{}
	for _, file := range parsed {
		for _, declared := range file.Decls {
			general, ok := declared.(*ast.GenDecl)
			if !ok || general.Tok != token.CONST {
				continue
			}
			for _, spec := range general.Specs {
				value := spec.(*ast.ValueSpec)
				for i := range value.Values {
					constants[file.Name.Name+"."+value.Names[i].Name] = value.Values[i]
				}
			}
		}
	}
	found = map[string]string{}
	for _, file := range parsed {
		ast.Inspect(file, func(node ast.Node) bool {
			call, ok := node.(*ast.CallExpr)
			if !ok {
				return true
			}
			at := -1
			switch name := calledAs(call); name {
			case "ExecContext":
				at = 1
			case "GetContext", "SelectContext":
				at = 2
			case "pg.Get":
				at = 4
			}
			if at < 0 || len(call.Args) <= at {
				return true
			}
			statement, ok := textOf(call.Args[at], file.Name.Name, constants)
			switch {
			case !ok:
				dynamic++
			case !strings.HasPrefix(statement, "ANALYZE"):
				found[files.Position(call.Pos()).String()] = statement
			}
			return true
		})
	}
	return found, dynamic
}

func calledAs(call *ast.CallExpr) string {
	switch f := call.Fun.(type) {
	case *ast.SelectorExpr:
		if of, ok := f.X.(*ast.Ident); ok && of.Name == "pg" {
			return "pg." + f.Sel.Name
		}
		return f.Sel.Name
	case *ast.Ident:
		return f.Name
	}
	return ""
}

// textOf puts a text together that consists of constants, of a package and of others.
func textOf(e ast.Expr, in string, constants map[string]ast.Expr) (string, bool) {
	named := func(in, name string) (string, bool) {
		value, ok := constants[in+"."+name]
		if !ok {
			return "", false
		}
		return textOf(value, in, constants)
	}
	switch x := e.(type) {
	case *ast.BasicLit:
		text, err := strconv.Unquote(x.Value)
		return text, err == nil
	case *ast.BinaryExpr:
		left, okLeft := textOf(x.X, in, constants)
		right, okRight := textOf(x.Y, in, constants)
		return left + right, okLeft && okRight
	case *ast.Ident:
		return named(in, x.Name)
	case *ast.SelectorExpr:
		if of, ok := x.X.(*ast.Ident); ok {
			return named(of.Name, x.Sel.Name)
		}
	}
	return "", false
}
