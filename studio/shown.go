package studio

import (
	"context"

	"gyrophane/store"
)

// Showable is what others see of a thing that is shown to them, said before it is.
type Showable struct {
	// Seen is what is always seen.
	Seen []string
	// Notes, Prices, Photos and Name are what is seen of these where the painter wants it; empty where there is nothing of the kind.
	Notes, Prices, Photos, Name string
	// Never is what is not seen in any case.
	Never string
}

const byName = "that it is yours, by your name"

// Showables are the kinds of things that can be shown.
var Showables = []string{store.ShowsWheel, store.ShowsComparison, store.ShowsBox, store.ShowsSheet, store.ShowsSitting}

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
	store.ShowsSheet: {
		Seen: []string{
			"the sheet as it is printed, with the name of its wheel",
			"its places with their recipes, and the order of painting",
			"what to squeeze out, and the cautions of its paints",
		},
		Name:  byName,
		Never: "your box, notes, prices, guesses, sittings and photos",
	},
	store.ShowsSitting: {
		Seen: []string{
			"when it was painted, and in what",
			"each place as computed and as it was read, wet and dry, and what came of it",
			"what drying did, and steps that jump",
		},
		Notes:  "what you noted in it, and for the next time",
		Photos: "its photos",
		Name:   byName,
		Never:  "your box, prices, guesses, what your tubes turned out to be, other sittings",
	},
}

// ShowableOf is what others would see of one of Showables.
func ShowableOf(kind string) Showable { return showables[kind] }

// WatchShown is told when something of a painter's may look different to those it is shown to, by whatever process on the
// database, until stop is called; where a sitting is shown, also when something was done in one.
func (s *Studio) WatchShown(painter int64, sitting bool) (told <-chan int64, stop func()) {
	changed, unwatch := s.lookingOn.add(painter)
	if !sitting {
		return changed, unwatch
	}
	done, leave := s.watchers.add(painter)
	both, end := make(chan int64, mostUnheard), make(chan struct{})
	go func() {
		for {
			select {
			case one := <-changed:
				say(both, one)
			case one := <-done:
				say(both, one)
			case <-end:
				return
			}
		}
	}()
	return both, func() {
		close(end)
		unwatch()
		leave()
	}
}

// listenShown is told of painters as watchers of sittings are told of sittings.
func listenShown(of *store.Store) func(ctx context.Context, begun func(), heard func(store.Done)) {
	return func(ctx context.Context, begun func(), heard func(store.Done)) {
		of.ListenShown(ctx, begun, func(painter int64) { heard(store.Done{Painter: painter}) })
	}
}
