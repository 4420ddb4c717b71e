package e2e

import (
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// violation is a rule of axe-core that a page breaks, and where.
type violation struct {
	ID    string `json:"id"`
	Help  string `json:"help"`
	Nodes []struct {
		Target         []any  `json:"target"`
		HTML           string `json:"html"`
		FailureSummary string `json:"failureSummary"`
	} `json:"nodes"`
}

// breaks runs axe-core on the page as it is.
func (v visitor) breaks() (out []violation) {
	v.t.Helper()
	if !v.MustEval(`() => !!window.axe`).Bool() {
		source, err := os.ReadFile(filepath.Join(root(v.t), "ui", "node_modules", "axe-core", "axe.min.js"))
		require.NoError(v.t, err, "axe-core comes with the front end's packages: run make test")
		v.MustEval(`(source) => { (0, eval)(source) }`, string(source))
	}
	found := v.MustEval(`async () => JSON.stringify((await axe.run(document, { resultTypes: ["violations"] })).violations)`).String()
	require.NoError(v.t, json.Unmarshal([]byte(found), &out))
	return out
}

// The places, each as a painter finds it, and what is shown when it is there.
var places = []struct{ address, shows string }{
	{"/box", "ultramarine blue"},
	{"/box?as=leans", "the blue called warm leans to"},
	{"/box/new", "two swatches"},
	{"/begin", "begin"},
	{"/system/1", "riding along"},
	{"/wheel/1", "of nine mixtures"},
	{"/wheel/1?view=neutrals", "ochre-like"},
	{"/wheel/1?view=glazes", "The wheel, glazed"},
	{"/pairings/1", "quinacridone magenta"},
	{"/pairings/1?of=box&as=map", "the disc’s area"},
	{"/pairings/1/practice", "How the eye has fared"},
	{"/path/1", "other ways of these two"},
	{"/path/1?view=pile", "palette"},
	{"/path/1?view=sheet", "sheet"},
	{"/path/1?view=quieten", "quieten"},
	{"/compare", "mussel violet"},
}

// Nobody is kept out by how a page is built: axe-core finds nothing on any place,
// at any width, each has one heading of the first level, and nothing has to be
// scrolled sideways.
func TestEveryPlaceIsOpenToEverybody(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	at := func(place string) string {
		return p.MustEval(`() => location.origin`).String() + place
	}
	for _, place := range places {
		for _, width := range []int{1280, 768, 390} {
			p.MustSetViewport(width, 800, 1, false)
			p.MustNavigate(at(place.address)).MustWaitLoad()
			p.waitFor(place.address, func() bool { return strings.Contains(strings.ToLower(p.text()), strings.ToLower(place.shows)) })
			here := fmt.Sprintf("%s at %d px", place.address, width)
			for _, b := range p.breaks() {
				for _, n := range b.Nodes {
					assert.Fail(t, b.ID, "%s: %s: %v %.200s", here, b.Help, n.Target, n.HTML)
				}
			}
			assert.Equal(t, 1, p.MustEval(`() => document.querySelectorAll("h1").length`).Int(), "%s: headings of the first level", here)
			assert.Equal(t, width, p.MustEval(`() => Math.max(innerWidth, document.documentElement.scrollWidth)`).Int(), "%s: it scrolls sideways", here)
		}
	}
}
