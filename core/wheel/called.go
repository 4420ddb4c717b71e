package wheel

import (
	"slices"
	"strings"

	"gyrophane/core/input"
	"gyrophane/core/text"
)

// OwnNames are what a painter calls slots, by home; empty for those that go by the set.
type OwnNames [12]string

// LongestOwnName is how many characters a painter's own name of a slot has at the most.
const LongestOwnName = 18

// sound are the names without space around them. The error is an input.Error.
func (names OwnNames) sound() (OwnNames, error) {
	seen := map[string]bool{}
	for home, name := range names {
		name, err := text.Line("the name of a slot", name, LongestOwnName)
		if err != nil {
			return names, input.Sentence(err)
		}
		if names[home] = name; name == "" {
			continue
		}
		folded := strings.ToLower(name)
		for _, set := range nameSets {
			if slices.Contains(set[:], folded) {
				return names, input.Errorf("%q is what a slot is called anyway: choose another name, or leave it empty to have it back", name)
			}
		}
		if strings.ContainsAny(name, ",/") {
			return names, input.Errorf("the name %q of a slot has a comma or a stroke in it, which part the halves of a slot: leave them out", name)
		}
		if seen[folded] {
			return names, input.Errorf("two slots cannot both be called %q", name)
		}
		seen[folded] = true
	}
	return names, nil
}
