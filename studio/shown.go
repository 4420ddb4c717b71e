package studio

import (
	"context"

	"gyrophane/store"
)

// Showable is what others see of a thing that is shown to them, said before it is.
type Showable struct {
	// Seen is what is always seen.
	Seen []string
	// Notes, Prices and Name are what is seen of these where the painter wants it; empty where there is nothing of the kind.
	Notes, Prices, Name string
	// Never is what is not seen in any case.
	Never string
}

const byName = "that it is yours, by your name"

// Showables are the kinds of things that can be shown.
var Showables = []string{store.ShowsWheel, store.ShowsComparison, store.ShowsBox}

var showables = map[string]Showable{
	store.ShowsWheel: {
		Seen: []string{
			"its name, its system and its paints, called as on your tubes",
			"all its slots as painted, wet and dry, with their parts and how to mix them",
			"what stays clean, what turns to mud, and why",
		},
		Name:  byName,
		Never: "your box, notes, prices, guesses, sittings and photos",
	},
	store.ShowsComparison: {
		Seen: []string{
			"the systems by their names, with their paints",
			"how far each reaches all round, and their figures",
		},
		Notes:  "your note and your decision",
		Prices: "what the tubes of each cost together",
		Name:   byName,
		Never:  "the wheels themselves, your box, wanted colours, sittings and photos",
	},
	store.ShowsBox: {
		Seen: []string{
			"each tube drawn down, called as you call it, with its pigments",
			"lean, strength, hiding and cautions of each",
		},
		Notes:  "what you noted on tubes",
		Prices: "prices, and what the tubes hold",
		Name:   byName,
		Never:  "tubes that you put away, wheels, sittings and photos",
	},
}

// ShowableOf is what others would see of one of Showables.
func ShowableOf(kind string) Showable { return showables[kind] }

// WatchShown is told when something of a painter's may look different to those it is shown to, by whatever process on the
// database, until stop is called.
func (s *Studio) WatchShown(painter int64) (told <-chan int64, stop func()) {
	return s.lookingOn.add(painter)
}

// listenShown is told of painters as watchers of sittings are told of sittings.
func listenShown(of *store.Store) func(ctx context.Context, begun func(), heard func(store.Done)) {
	return func(ctx context.Context, begun func(), heard func(store.Done)) {
		of.ListenShown(ctx, begun, func(painter int64) { heard(store.Done{Painter: painter}) })
	}
}
