package main

import (
	"os"
	"path/filepath"
	"strings"
	"testing"
)

func TestCheck(t *testing.T) {
	t.Chdir(t.TempDir())
	tests := []struct{ rule, path, source, says string }{
		{"core computes", "core/x/x.go", "package x\nimport \"strings\"\nvar _ = strings.ToUpper", ""},
		{"core embeds tables", "core/x/x.go", "package x\nimport _ \"embed\"", ""},
		{"core reads files", "core/x/x.go", "package x\nimport _ \"os\"", "must not import os"},
		{"core uses a network", "core/x/x.go", "package x\nimport _ \"net/http\"", "must not import net/http"},
		{"core uses a database", "core/x/x.go", "package x\nimport _ \"database/sql\"", "database/sql"},
		{"core uses a driver", "core/x/x.go", "package x\nimport _ \"github.com/jackc/pgx/v5\"", "pgx"},
		{"core knows a library of its own name", "core/x/x.go", "package x\nimport _ \"network\"", ""},
		{"core looks at the clock", "core/x/x.go", "package x\nimport \"time\"\nvar now = time.Now()", "time.Now"},
		{"core counts time", "core/x/x.go", "package x\nimport \"time\"\nvar day = 24 * time.Hour", ""},
		{"core's tests may look", "core/x/x_test.go",
			"package x\nimport (\"time\"; \"os\")\nvar now, _ = time.Now(), os.Args", ""},
		{"core points outward", "core/x/x.go", "package x\nimport _ \"frugalheron/store\"", "core must not use store"},
		{"store points inward", "store/x.go", "package store\nimport _ \"frugalheron/core/sheet\"", ""},
		{"store points outward", "store/x.go", "package store\nimport _ \"frugalheron/app\"", "store must not use app"},
		{"web points outward", "web/x.go", "package web\nimport _ \"frugalheron/demo\"", "web must not use demo"},
		{"tests borrow the sample world", "web/x_test.go", "package web_test\nimport _ \"frugalheron/demo\"", ""},
		{"a subject uses one below", "app/sheets/x.go", "package sheets\nimport _ \"frugalheron/app/inventory\"", ""},
		{"a subject uses the kernel", "app/sheets/x.go", "package sheets\nimport _ \"frugalheron/app/action\"", ""},
		{"a subject uses one above", "app/inventory/x.go", "package inventory\nimport _ \"frugalheron/app/sheets\"",
			"app/inventory must not use app/sheets"},
		{"a subject reads its own records", "app/roms/x.go", "package roms\nimport _ \"frugalheron/store/roms\"", ""},
		{"a subject reads records of one it uses", "app/sheets/x.go",
			"package sheets\nimport _ \"frugalheron/store/inventory\"", ""},
		{"a subject reads strangers' records", "app/accounts/x.go",
			"package accounts\nimport _ \"frugalheron/store/roms\"", "must not use store/roms"},
		{"a test borrows", "app/inventory/x_test.go", "package inventory_test\nimport _ \"frugalheron/app/sheets\"",
			""},
		{"operations beside each other", "web/roms/x.go", "package roms\nimport _ \"frugalheron/web/files\"",
			"web/roms must not use web/files"},
		{"a layer nobody knows", "util/x.go", "package util", "belongs to no layer"},
	}
	for _, test := range tests {
		if err := os.MkdirAll(filepath.Dir(test.path), 0o755); err != nil {
			t.Fatal(err)
		}
		if err := os.WriteFile(test.path, []byte(test.source), 0o600); err != nil {
			t.Fatal(err)
		}
		problems, err := check(test.path)
		if err != nil {
			t.Fatal(err)
		}
		got := strings.Join(problems, "; ")
		if test.says == "" && got != "" || !strings.Contains(got, test.says) {
			t.Errorf("%s: %q, want %q", test.rule, got, test.says)
		}
	}
}
