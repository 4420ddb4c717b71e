// Package gyrophane_test holds what is true of the whole house.
package gyrophane_test

import (
	"encoding/json"
	"go/parser"
	"go/token"
	"maps"
	"os"
	"os/exec"
	"path"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// floors are the rooms from below upward: what each may import of the house. A
// room of core may import those of core that stand above it in this list.
var floors = []struct {
	room string
	may  []string
}{
	{"core/internal", nil},
	{"core/text", nil},
	{"core/input", nil},
	{"core/colour", nil},
	{"core/paint", nil},
	{"core/beside", nil},
	{"core/recipe", nil},
	{"core/bias", nil},
	{"core/path", nil},
	{"core/wheel", nil},
	{"core/reach", nil},
	{"core/certainty", nil},
	{"core/bench", nil},
	{"core/photo", nil},
	{"core/journal", nil},
	{"core/paper", nil},
	{"devices", []string{"core"}},
	{"files", []string{"core"}},
	{"store", []string{"core", "store"}},
	{"jobs", []string{"store"}},
	{"studio", []string{"core", "devices", "files", "jobs", "store"}},
	{"wire", []string{"core", "studio"}},
	{"ui", nil},
	{"api", []string{"core", "devices", "files", "jobs", "store", "studio", "ui", "wire"}},
	{"cmd", []string{"api", "core", "devices", "files", "store", "studio", "wire"}},
}

// thirdParty is what core may import of others.
var thirdParty = []string{"gonum.org/v1/gonum", "github.com/lucasb-eyer/go-colorful", "golang.org/x/sync/errgroup"}

func TestEachRoomImportsOnlyWhatStandsBelowIt(t *testing.T) {
	list := exec.Command("go", "list", "-f", `{{.ImportPath}} {{join .Imports " "}}`, "./...")
	out, err := list.Output()
	require.NoError(t, err)
	rooms := 0
	for _, line := range strings.Split(strings.TrimSpace(string(out)), "\n") {
		fields := strings.Fields(line)
		name, inside := strings.CutPrefix(fields[0], "gyrophane/")
		if !inside || strings.HasPrefix(name, "e2e") || strings.HasPrefix(name, "scripts") {
			continue
		}
		at := roomOf(name)
		require.GreaterOrEqual(t, at, 0, "%s has no place in the table of floors", name)
		rooms++
		for _, imported := range fields[1:] {
			other, own := strings.CutPrefix(imported, "gyrophane/")
			switch {
			case own:
				assert.True(t, allowed(at, other), "%s may not import %s", name, other)
			case strings.HasPrefix(name, "core/") && strings.Contains(firstOf(imported), "."):
				assert.True(t, slices.ContainsFunc(thirdParty, func(p string) bool { return strings.HasPrefix(imported, p) }), "%s may not import %s", name, imported)
			case strings.HasPrefix(name, "core/"):
				assert.NotContains(t, []string{"net/http", "database/sql", "os", "log", "log/slog"}, imported, "%s does no input or output", name)
			}
		}
	}
	assert.Greater(t, rooms, 12)
}

func firstOf(importPath string) string {
	first, _, _ := strings.Cut(importPath, "/")
	return first
}

func roomOf(name string) int {
	for i, f := range floors {
		if name == f.room || strings.HasPrefix(name, f.room+"/") {
			return i
		}
	}
	return -1
}

func allowed(at int, other string) bool {
	to, f := roomOf(other), floors[at]
	if strings.HasPrefix(f.room, "core/") {
		return strings.HasPrefix(other, "core/") && to <= at && path.Dir(f.room) == "core"
	}
	return slices.ContainsFunc(f.may, func(room string) bool { return other == room || strings.HasPrefix(other, room+"/") })
}

// The program imports the HTTP face only where it serves.
func TestOnlyServingNeedsTheAPI(t *testing.T) {
	files, err := filepath.Glob("cmd/*/*.go")
	require.NoError(t, err)
	require.NotEmpty(t, files)
	for _, file := range files {
		parsed, err := parser.ParseFile(token.NewFileSet(), file, nil, parser.ImportsOnly)
		require.NoError(t, err)
		for _, i := range parsed.Imports {
			if i.Path.Value == `"gyrophane/api"` {
				assert.Contains(t, filepath.Base(file), "serve", "%s asks the API for something", file)
			}
		}
	}
}

// Everything that it is built on stands in the table of licences, and nothing else does.
func TestEveryLicenceIsSaid(t *testing.T) {
	table, err := os.ReadFile("docs/licences.md")
	require.NoError(t, err)
	said := map[string]bool{}
	for _, row := range regexp.MustCompile(`(?m)^\| (\S+) \| (MIT|ISC|Apache-2\.0|MPL-2\.0|BSD-[23]-Clause|OFL-1\.1) \|$`).FindAllStringSubmatch(string(table), -1) {
		said[row[1]] = true
	}
	mod, err := os.ReadFile("go.mod")
	require.NoError(t, err)
	var used []string
	for _, line := range regexp.MustCompile(`(?m)^\t(\S+) v\S+$`).FindAllStringSubmatch(string(mod), -1) {
		used = append(used, line[1])
	}
	require.Greater(t, len(used), 15)
	text, err := os.ReadFile("ui/package.json")
	require.NoError(t, err)
	var ui struct{ Dependencies, DevDependencies map[string]string }
	require.NoError(t, json.Unmarshal(text, &ui))
	used = append(used, slices.Concat(slices.Collect(maps.Keys(ui.Dependencies)), slices.Collect(maps.Keys(ui.DevDependencies)))...)
	for _, name := range used {
		assert.True(t, said[name], "%s has no licence in docs/licences.md", name)
		delete(said, name)
	}
	assert.Empty(t, said, "these are not used")
}
