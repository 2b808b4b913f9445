// Command layers checks that everything points inward to the core, that subjects use only those that they may, that the
// core keeps to computing (no network, no database, no files, no clock), and that lines break.
package main

import (
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
)

const module = "frugalheron/"

// mayImport lists for each layer the layers of ours that it may use beside itself.
var mayImport = map[string][]string{
	"core":        {},
	"store":       {"core"},
	"app":         {"store", "core", "instruments"},
	"web":         {"app", "store", "core"},
	"jobs":        {"app", "store"},
	"demo":        {"app", "store", "core"},
	"cmd":         {"jobs", "demo", "web", "app", "store", "core", "instruments"},
	"e2e":         {"jobs", "demo", "web", "app", "store", "core", "instruments"},
	"instruments": {"core"},
	"scripts":     {},
}

// notInCore are packages that reach out of the computation.
var notInCore = []string{"net", "database/sql", "os", "io/fs", "io/ioutil", "log", "path/filepath", "syscall",
	"math/rand", "crypto/rand", "github.com", "golang.org", "go.uber.org"}

// computing are packages under these that only compute.
var computing = []string{"golang.org/x/text/unicode/norm"}

// speaks are the tags by which a field says how it goes out, and comes in. A row of the store has none of them: views
// in app do. What the database keeps as a document is written by names of its own.
var speaks = regexp.MustCompile(`\b(doc|says|enum|example|maxLength|minimum|maximum|required|nullable):"`)

// clock are the functions of package time that look at a clock.
var clock = []string{"Now", "Since", "Until", "After", "AfterFunc", "Tick", "NewTimer", "NewTicker", "Sleep"}

// isSource are the files whose lines break at a width.
var isSource = regexp.MustCompile(`\.(go|tsx?)$`)

func main() {
	problems := []string{}
	err := filepath.WalkDir(".", func(path string, entry fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		isForeign := slices.Contains([]string{"node_modules", "dist"}, entry.Name())
		if entry.IsDir() && (isForeign || strings.HasPrefix(entry.Name(), ".") && path != ".") {
			return fs.SkipDir
		}
		if isSource.MatchString(path) && !strings.Contains(path, ".gen.") {
			found, err := tooWide(path)
			problems = append(problems, found...)
			if err != nil {
				return err
			}
		}
		if strings.HasSuffix(path, ".go") {
			found, err := check(path)
			problems = append(problems, found...)
			return err
		}
		return nil
	})
	if err != nil {
		problems = append(problems, err.Error())
	}
	for _, problem := range problems {
		fmt.Fprintln(os.Stderr, problem)
	}
	if len(problems) > 0 {
		os.Exit(1)
	}
}

func check(path string) (problems []string, err error) {
	files := token.NewFileSet()
	file, err := parser.ParseFile(files, path, nil, parser.SkipObjectResolution)
	if err != nil {
		return nil, err
	}
	layer, _, _ := strings.Cut(filepath.ToSlash(path), "/")
	allowed, known := mayImport[layer]
	if !known {
		return []string{path + ": belongs to no layer"}, nil
	}
	isTest := strings.HasSuffix(path, "_test.go")
	if layer == "store" && !isTest {
		problems = append(problems, outspokenRows(files, file)...)
	}
	if (layer == "app" || layer == "web") && !isTest {
		problems = append(problems, rowsInViews(files, file)...)
	}
	for _, spec := range file.Imports {
		name, err := strconv.Unquote(spec.Path.Value)
		if err != nil {
			return nil, err
		}
		if ours, ok := strings.CutPrefix(name, module); ok {
			other, _, _ := strings.Cut(ours, "/")
			if !isTest && !arrows.allow(subjectOf(filepath.ToSlash(path)), subjectOf(ours+"/")) {
				problems = append(problems,
					fmt.Sprintf("%s: %s must not use %s; the table is scripts/layers/arrows.txt",
						files.Position(spec.Pos()), subjectOf(filepath.ToSlash(path)), ours))
			}
			// Tests from outside may borrow the sample world's people, and have jobs done.
			if other != layer && !slices.Contains(allowed, other) && !(isTest && (other == "demo" || other == "jobs")) {
				problems = append(problems,
					fmt.Sprintf("%s: %s must not use %s", files.Position(spec.Pos()), layer, other))
			}
		} else if layer == "core" && !isTest && !slices.Contains(computing, name) &&
			slices.ContainsFunc(notInCore, func(bad string) bool {
				return name == bad || strings.HasPrefix(name, bad+"/")
			}) {
			problems = append(problems,
				fmt.Sprintf("%s: the core must not import %s", files.Position(spec.Pos()), name))
		}
	}
	if layer == "core" && !isTest {
		ast.Inspect(file, func(node ast.Node) bool {
			call, ok := node.(*ast.SelectorExpr)
			if !ok {
				return true
			}
			if from, ok := call.X.(*ast.Ident); ok && from.Name == "time" && slices.Contains(clock, call.Sel.Name) {
				problems = append(problems,
					fmt.Sprintf("%s: the core must not look at a clock (time.%s)", files.Position(call.Pos()),
						call.Sel.Name))
			}
			return true
		})
	}
	return problems, nil
}

// outspokenRows finds rows of the store that say how they go out.
func outspokenRows(files *token.FileSet, file *ast.File) (problems []string) {
	ast.Inspect(file, func(node ast.Node) bool {
		field, ok := node.(*ast.Field)
		if !ok || field.Tag == nil {
			return true
		}
		tag := field.Tag.Value
		if speaks.MatchString(tag) || strings.Contains(tag, `json:"`) && strings.Contains(tag, `db:"`) {
			problems = append(problems, fmt.Sprintf("%s: rows have db tags only; what goes out is a view in app",
				files.Position(field.Pos())))
		}
		return true
	})
	return problems
}

// rowsInViews finds views that hold a row of the store: it would go out by no names, and with texts that nobody knows
// to be texts.
func rowsInViews(files *token.FileSet, file *ast.File) (problems []string) {
	rows := map[string]bool{}
	for _, spec := range file.Imports {
		name, _ := strconv.Unquote(spec.Path.Value)
		if !strings.HasPrefix(name, module+"store/") {
			continue
		}
		rows[name[strings.LastIndex(name, "/")+1:]] = spec.Name == nil
		if spec.Name != nil {
			rows[spec.Name.Name] = true
		}
	}
	ast.Inspect(file, func(node ast.Node) bool {
		structure, ok := node.(*ast.StructType)
		if !ok || !slices.ContainsFunc(structure.Fields.List, func(field *ast.Field) bool {
			return field.Tag != nil && strings.Contains(field.Tag.Value, `json:"`)
		}) {
			return true
		}
		for _, field := range structure.Fields.List {
			ast.Inspect(field.Type, func(node ast.Node) bool {
				name, ok := node.(*ast.SelectorExpr)
				if !ok {
					return true
				}
				if from, ok := name.X.(*ast.Ident); ok && rows[from.Name] {
					problems = append(problems, fmt.Sprintf("%s: a view holds no row of the store (%s.%s)",
						files.Position(field.Pos()), from.Name, name.Sel.Name))
				}
				return true
			})
		}
		return true
	})
	return problems
}
