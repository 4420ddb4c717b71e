package main

import (
	"fmt"
	"io"
	"strings"

	"github.com/spf13/cobra"

	"gyrophane/core/paint"
	"gyrophane/wire"
)

func nameCommand() *cobra.Command {
	var sold string
	var asJSON bool
	c := &cobra.Command{
		Use:     "name WORDS...",
		Short:   "The pigments that are usually behind the words on a tube",
		Long:    "What may be behind the words on a tube or pan, the likeliest first, and what would tell them apart:\nby a table of generic names, in the spellings that people type.",
		Example: "gyrophane name permanent rose\ngyrophane name \"cad. red med. hue\" --sold students --json",
		Args:    cobra.MinimumNArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			as, err := paint.ParseSold(sold)
			if err != nil {
				return err
			}
			named, err := paint.NameOf(strings.Join(args, " "), as)
			if err != nil {
				return err
			}
			out := wire.NamedTubeOf(named)
			return (&question{json: asJSON}).answer(cmd, out, func(w io.Writer) { nameTable(w, out) })
		},
	}
	c.Flags().StringVar(&sold, "sold", "artists", "artists, students or pans")
	c.Flags().BoolVar(&asJSON, "json", false, "JSON, as the HTTP API")
	return c
}

func nameTable(w io.Writer, n wire.NamedTube) {
	if n.Says != "" {
		fmt.Fprintf(w, "%s\n", n.Says)
	}
	for _, one := range n.Found {
		fmt.Fprintf(w, "%s\t%s\t%s\n", one.Code, one.Name, one.How)
	}
	if n.NotSure && n.Found[0].Tell != "" {
		fmt.Fprintf(w, "\nTo tell them apart: %s.\n", n.Found[0].Tell)
	}
}
