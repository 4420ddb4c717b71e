package store

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"
	"sync"
	"time"

	"github.com/go-gormigrate/gormigrate/v2"
	"gorm.io/gorm"
	"gorm.io/gorm/schema"
)

// migrationLock is the advisory lock under which the schema is brought up to
// date, so that servers started at the same time take turns.
const migrationLock = 0x6779726f

// narrows ends the id of a migration that takes away what versions before it use: those do not start any more once it is there.
// All others only add, so that processes of the version before go on beside those of the next: what is to go is no longer used by
// one version, and taken away by the one after.
const narrows = "-narrows"

// migrations in order; one that has been released is never edited.
var migrations = []*gormigrate.Migration{
	{
		ID: "0001_painters",
		Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
				create table painters (
					id bigint generated always as identity primary key,
					name text not null check (length(name) between 1 and 80),
					demo boolean not null default false,
					passphrase_hash text not null default '',
					created_at timestamptz not null
				);
				create unique index painters_name on painters (lower(name));
				create table secrets (
					name text primary key,
					value bytea not null
				);`).Error
		},
		Rollback: func(tx *gorm.DB) error { return tx.Exec(`drop table secrets, painters`).Error },
	},
	{
		// Foreign keys carry the owner along, so that the database itself
		// refuses a wheel of one painter on a system of another.
		ID: "0002_systems_and_wheels",
		Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
				create table systems (
					id bigint generated always as identity primary key,
					painter_id bigint not null references painters on delete cascade,
					name text not null check (length(name) between 1 and 80),
					kind text not null,
					roles jsonb not null,
					version integer not null default 1,
					created_at timestamptz not null,
					updated_at timestamptz not null,
					unique (id, painter_id)
				);
				create index systems_painter on systems (painter_id);
				create table wheels (
					id bigint generated always as identity primary key,
					painter_id bigint not null references painters on delete cascade,
					system_id bigint not null,
					name text not null check (length(name) between 1 and 80),
					snapshot jsonb not null,
					settings jsonb not null,
					library_version text not null,
					version integer not null default 1,
					created_at timestamptz not null,
					updated_at timestamptz not null,
					unique (id, painter_id),
					foreign key (system_id, painter_id) references systems (id, painter_id) on delete cascade
				);
				create index wheels_painter on wheels (painter_id);
				create table wheel_versions (
					id bigint generated always as identity primary key,
					painter_id bigint not null,
					wheel_id bigint not null,
					version integer not null,
					back_to integer not null default 0,
					refused boolean not null default false,
					name text not null,
					snapshot jsonb not null,
					settings jsonb not null,
					library_version text not null,
					created_at timestamptz not null,
					foreign key (wheel_id, painter_id) references wheels (id, painter_id) on delete cascade
				);
				create unique index wheel_versions_kept on wheel_versions (wheel_id, version) where not refused;
				create index wheel_versions_wheel on wheel_versions (wheel_id, id);`).Error
		},
		Rollback: func(tx *gorm.DB) error { return tx.Exec(`drop table wheel_versions, wheels, systems`).Error },
	},
	{
		// Tubes are never deleted, only archived or withdrawn. A change groups
		// the versions that one act wrote, so that it can be undone as one.
		ID: "0003_boxes",
		Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
				alter table painters add column warm_blue text not null default 'violet' check (warm_blue in ('violet', 'green'));
				create table tubes (
					id bigint generated always as identity primary key,
					painter_id bigint not null references painters on delete cascade,
					definition jsonb not null,
					nickname text not null,
					grade text not null,
					tube_ml double precision,
					price double precision,
					note text not null,
					state text not null check (state in ('in', 'archived', 'withdrawn')),
					version integer not null default 1,
					stands_for integer not null default 1,
					created_at timestamptz not null,
					updated_at timestamptz not null,
					unique (id, painter_id)
				);
				create index tubes_painter on tubes (painter_id);
				create table box_changes (
					id bigint generated always as identity primary key,
					painter_id bigint not null references painters on delete cascade,
					summary text not null,
					undo boolean not null default false,
					undone boolean not null default false,
					created_at timestamptz not null,
					unique (id, painter_id)
				);
				create index box_changes_painter on box_changes (painter_id, id);
				create table tube_versions (
					id bigint generated always as identity primary key,
					painter_id bigint not null,
					tube_id bigint not null,
					version integer not null,
					previous integer not null default 0,
					change_id bigint,
					refused boolean not null default false,
					content jsonb not null,
					created_at timestamptz not null,
					foreign key (tube_id, painter_id) references tubes (id, painter_id) on delete cascade,
					foreign key (change_id, painter_id) references box_changes (id, painter_id) on delete cascade
				);
				create unique index tube_versions_kept on tube_versions (tube_id, version) where not refused;
				create index tube_versions_change on tube_versions (change_id);
				create index tube_versions_refused on tube_versions (painter_id) where refused;`).Error
		},
		Rollback: func(tx *gorm.DB) error {
			return tx.Exec(`drop table tube_versions, box_changes, tubes; alter table painters drop column warm_blue`).Error
		},
	},
	{
		// Wheels of every kind of system: triads of before become one of them.
		ID: "0004_systems_of_every_kind",
		Migrate: func(tx *gorm.DB) error {
			for _, table := range []string{"wheels", "wheel_versions"} {
				err := tx.Exec(`
					alter table ` + table + ` add column kind text not null default 'triad', add column archived boolean not null default false;
					update ` + table + ` set
						snapshot = jsonb_build_object('system', jsonb_build_object('kind', 'triad', 'note', '', 'riders', '{}'::jsonb, 'chosen', '[[],[],[]]'::jsonb,
							'roles', jsonb_build_array(jsonb_build_array(snapshot->'yellow'), jsonb_build_array(snapshot->'red'), jsonb_build_array(snapshot->'blue'))), 'frozen', '{}'::jsonb),
						settings = jsonb_build_object('medium', settings->'medium', 'light', settings->'light', 'judged', settings->'judged',
							'choices', jsonb_build_object('spacing', settings->'spacing', 'order', 'run', 'names', 'painters',
								'rings', jsonb_build_object('tints', 0, 'shades', 0, 'wash', false, 'neutral', false, 'triple', false)));`).Error
				if err != nil {
					return err
				}
			}
			return tx.Exec(`update systems set roles = (select w.snapshot from wheels w where w.system_id = systems.id limit 1)
				where exists (select 1 from wheels w where w.system_id = systems.id)`).Error
		},
		Rollback: func(tx *gorm.DB) error {
			return tx.Exec(`alter table wheels drop column kind, drop column archived; alter table wheel_versions drop column kind, drop column archived`).Error
		},
	},
	{
		// A prediction is written once and never changed.
		ID: "0005_predictions",
		Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
				create table predictions (
					id bigint generated always as identity primary key,
					painter_id bigint not null,
					wheel_id bigint not null,
					wheel_version integer not null,
					home integer not null check (home between 0 and 11),
					hue_word text not null,
					verdict text not null,
					outcome jsonb not null,
					created_at timestamptz not null,
					foreign key (wheel_id, painter_id) references wheels (id, painter_id) on delete cascade
				);
				create index predictions_wheel on predictions (wheel_id, id);
				create unique index predictions_once on predictions (wheel_id, wheel_version, home);`).Error
		},
		Rollback: func(tx *gorm.DB) error { return tx.Exec(`drop table predictions`).Error },
	},
	{
		// Paints by reference, as systems name them.
		ID: "0006_pair_marks",
		Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
				create table pair_marks (
					painter_id bigint not null references painters on delete cascade,
					a text not null,
					b text not null,
					mark text not null check (mark in ('to paint', 'painted', 'judged')),
					updated_at timestamptz not null,
					primary key (painter_id, a, b)
				);`).Error
		},
		Rollback: func(tx *gorm.DB) error { return tx.Exec(`drop table pair_marks`).Error },
	},
	{
		// Guesses at pairings, in rounds of practice or outside of them; written
		// once and never changed.
		ID: "0007_pair_guesses",
		Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
				create table practice_rounds (
					id bigint generated always as identity primary key,
					painter_id bigint not null references painters on delete cascade,
					pairs jsonb not null,
					length integer not null check (length between 1 and 10),
					spacing text not null,
					ended boolean not null default false,
					created_at timestamptz not null,
					unique (id, painter_id)
				);
				create index practice_rounds_painter on practice_rounds (painter_id, id);
				create table pair_guesses (
					id bigint generated always as identity primary key,
					painter_id bigint not null references painters on delete cascade,
					a text not null,
					b text not null,
					key text not null,
					section text not null,
					round_id bigint,
					place integer not null,
					said jsonb not null,
					outcome jsonb not null,
					points integer not null check (points between 0 and out_of),
					out_of integer not null,
					created_at timestamptz not null,
					foreign key (round_id, painter_id) references practice_rounds (id, painter_id) on delete cascade
				);
				create index pair_guesses_painter on pair_guesses (painter_id, id);
				create unique index pair_guesses_once on pair_guesses (painter_id, key) where round_id is null;
				create unique index pair_guesses_place on pair_guesses (painter_id, round_id, place) where round_id is not null;`).Error
		},
		Rollback: func(tx *gorm.DB) error { return tx.Exec(`drop table pair_guesses, practice_rounds`).Error },
	},
	{
		ID: "0008_wanted_colours",
		Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
				create table wanted_colours (
					id bigint generated always as identity primary key,
					painter_id bigint not null references painters on delete cascade,
					name text not null check (length(name) <= 80),
					colour text not null check (length(colour) between 3 and 60),
					created_at timestamptz not null
				);
				create index wanted_colours_painter on wanted_colours (painter_id, id);`).Error
		},
		Rollback: func(tx *gorm.DB) error { return tx.Exec(`drop table wanted_colours`).Error },
	},
	{
		ID: "0009_comparisons",
		Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
				create table comparisons (
					id bigint generated always as identity primary key,
					painter_id bigint not null references painters on delete cascade,
					address text not null check (length(address) <= 500),
					note text not null,
					decision text not null,
					version integer not null default 1,
					created_at timestamptz not null,
					updated_at timestamptz not null
				);
				create index comparisons_painter on comparisons (painter_id, id);`).Error
		},
		Rollback: func(tx *gorm.DB) error { return tx.Exec(`drop table comparisons`).Error },
	},
	{
		// Sessions of before were signed, and nobody could end them. A version on
		// which something was decided outlives the others.
		ID: "0010_sessions_and_decisions",
		Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
				create table sessions (
					id bigint generated always as identity primary key,
					painter_id bigint not null references painters on delete cascade,
					token_hash bytea not null unique,
					device text not null,
					created_at timestamptz not null,
					seen_at timestamptz not null,
					expires_at timestamptz not null
				);
				create index sessions_painter on sessions (painter_id, seen_at);
				drop table secrets;
				alter table wheel_versions add column decision boolean not null default false;
				alter table tube_versions add column decision boolean not null default false;`).Error
		},
		Rollback: func(tx *gorm.DB) error {
			return tx.Exec(`drop table sessions; create table secrets (name text primary key, value bytea not null);
				alter table wheel_versions drop column decision; alter table tube_versions drop column decision`).Error
		},
	},
	{
		ID: "202611-sittings",
		Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
				create table sittings (
					id bigint generated always as identity primary key,
					painter_id bigint not null references painters on delete cascade,
					wheel_id bigint not null,
					name text not null,
					plan jsonb not null,
					ended boolean not null default false,
					created_at timestamptz not null,
					updated_at timestamptz not null
				);
				create index sittings_painter on sittings (painter_id, updated_at);
				create table sitting_events (
					painter_id bigint not null references painters on delete cascade,
					sitting_id bigint not null references sittings on delete cascade,
					event_id text not null,
					arrived bigint generated always as identity,
					at timestamptz not null,
					device text not null,
					number bigint not null,
					offset_ms bigint not null,
					revision bigint not null,
					event jsonb not null,
					created_at timestamptz not null,
					primary key (sitting_id, event_id)
				);
				create index sitting_events_painter on sitting_events (painter_id);`).Error
		},
		Rollback: func(tx *gorm.DB) error {
			return tx.Exec(`drop table sitting_events; drop table sittings`).Error
		},
	},
	{
		ID: "202611-readings",
		Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
				create table sitting_photos (
					id bigint generated always as identity primary key,
					painter_id bigint not null references painters on delete cascade,
					sitting_id bigint not null references sittings on delete cascade,
					jpeg bytea not null,
					width int not null,
					height int not null,
					standin boolean not null,
					created_at timestamptz not null
				);
				create index sitting_photos_sitting on sitting_photos (sitting_id, painter_id);
				create table sitting_readings (
					id bigint generated always as identity primary key,
					painter_id bigint not null references painters on delete cascade,
					sitting_id bigint not null references sittings on delete cascade,
					region text not null,
					l double precision not null,
					a double precision not null,
					b double precision not null,
					spectrum jsonb,
					source text not null,
					wet boolean not null,
					medium text not null,
					minutes double precision not null,
					spread double precision not null,
					doubt text not null,
					created_at timestamptz not null
				);
				create index sitting_readings_sitting on sitting_readings (sitting_id, painter_id);`).Error
		},
		Rollback: func(tx *gorm.DB) error {
			return tx.Exec(`drop table sitting_readings; drop table sitting_photos`).Error
		},
	},
	{
		// What a tube turned out to be is kept beside what the painter says of it, and
		// can be taken back at any time: it is that of the last taking that stands.
		ID: "202611-strengths",
		Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
				alter table tubes add column learned double precision check (learned between 0.05 and 20);
				alter table sittings add column next_time text not null default '';
				create table takings (
					id bigint generated always as identity primary key,
					painter_id bigint not null references painters on delete cascade,
					sitting_id bigint references sittings on delete set null,
					medium text not null,
					readings integer not null,
					sittings integer not null,
					film_was double precision,
					film double precision check (film between 0.05 and 20),
					undone_at timestamptz,
					created_at timestamptz not null,
					unique (id, painter_id)
				);
				create index takings_painter on takings (painter_id, id);
				create table taken_strengths (
					taking_id bigint not null,
					tube_id bigint not null,
					painter_id bigint not null,
					was double precision not null,
					strength double precision not null check (strength between 0.05 and 20),
					low double precision not null,
					high double precision not null,
					primary key (taking_id, tube_id),
					foreign key (taking_id, painter_id) references takings (id, painter_id) on delete cascade,
					foreign key (tube_id, painter_id) references tubes (id, painter_id) on delete cascade
				);
				create index taken_strengths_tube on taken_strengths (tube_id);`).Error
		},
		Rollback: func(tx *gorm.DB) error {
			return tx.Exec(`drop table taken_strengths, takings; alter table sittings drop column next_time; alter table tubes drop column learned`).Error
		},
	},
	{
		// What belongs to a sitting names its owner too, as wheels do. Rows that do not agree are
		// put aside whole, and a sitting outlives its wheel.
		ID: "202611-owner-keys",
		Migrate: func(tx *gorm.DB) error {
			if err := tx.Exec(`
				create table put_aside (
					id bigint generated always as identity primary key,
					from_table text not null,
					why text not null,
					content jsonb not null,
					created_at timestamptz not null default now()
				);
				alter table sittings add unique (id, painter_id);
				alter table sittings alter column wheel_id drop not null;
				insert into put_aside (from_table, why, content)
					select 'sittings', 'its wheel is not there, or another painter''s: the sitting stays without one', to_jsonb(s) from sittings s
					where not exists (select 1 from wheels w where w.id = s.wheel_id and w.painter_id = s.painter_id);
				update sittings s set wheel_id = null where not exists (select 1 from wheels w where w.id = s.wheel_id and w.painter_id = s.painter_id);
				alter table sittings add foreign key (wheel_id, painter_id) references wheels (id, painter_id) on delete set null (wheel_id);
				create index sittings_wheel on sittings (wheel_id, painter_id);`).Error; err != nil {
				return err
			}
			for _, table := range []string{"sitting_events", "sitting_photos", "sitting_readings"} {
				if err := tx.Exec(fmt.Sprintf(`
					insert into put_aside (from_table, why, content)
						select '%[1]s', 'its sitting is another painter''s', to_jsonb(t) from %[1]s t
						where not exists (select 1 from sittings s where s.id = t.sitting_id and s.painter_id = t.painter_id);
					delete from %[1]s t where not exists (select 1 from sittings s where s.id = t.sitting_id and s.painter_id = t.painter_id);
					alter table %[1]s drop constraint %[1]s_sitting_id_fkey;
					alter table %[1]s add foreign key (sitting_id, painter_id) references sittings (id, painter_id) on delete cascade;`, table)).Error; err != nil {
					return err
				}
			}
			return tx.Exec(`
				insert into put_aside (from_table, why, content)
					select 'takings', 'its sitting is another painter''s: the taking stays without one', to_jsonb(t) from takings t
					where t.sitting_id is not null and not exists (select 1 from sittings s where s.id = t.sitting_id and s.painter_id = t.painter_id);
				update takings t set sitting_id = null where t.sitting_id is not null and not exists (select 1 from sittings s where s.id = t.sitting_id and s.painter_id = t.painter_id);
				alter table takings drop constraint takings_sitting_id_fkey;
				alter table takings add foreign key (sitting_id, painter_id) references sittings (id, painter_id) on delete set null (sitting_id);`).Error
		},
		Rollback: func(tx *gorm.DB) error {
			return tx.Exec(`
				alter table takings drop constraint takings_sitting_id_painter_id_fkey;
				alter table takings add foreign key (sitting_id) references sittings on delete set null;
				alter table sitting_events drop constraint sitting_events_sitting_id_painter_id_fkey;
				alter table sitting_events add foreign key (sitting_id) references sittings on delete cascade;
				alter table sitting_photos drop constraint sitting_photos_sitting_id_painter_id_fkey;
				alter table sitting_photos add foreign key (sitting_id) references sittings on delete cascade;
				alter table sitting_readings drop constraint sitting_readings_sitting_id_painter_id_fkey;
				alter table sitting_readings add foreign key (sitting_id) references sittings on delete cascade;
				alter table sittings drop constraint sittings_wheel_id_painter_id_fkey;
				drop index sittings_wheel;
				update sittings set wheel_id = 0 where wheel_id is null;
				alter table sittings alter column wheel_id set not null;
				alter table sittings drop constraint sittings_id_painter_id_key;
				drop table put_aside`).Error
		},
	},
	{
		// Plans that were worked out, by what went into them, so that each is once; what was
		// printed last of a wheel; and readings that the page sends again.
		ID: "202611-plans",
		Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
				create table worked_plans (
					painter_id bigint not null references painters on delete cascade,
					key text not null,
					plan jsonb not null,
					created_at timestamptz not null,
					primary key (painter_id, key)
				);
				create index worked_plans_age on worked_plans (painter_id, created_at);
				create table printed_plans (
					painter_id bigint not null,
					wheel_id bigint not null,
					sheet text not null,
					mark text not null,
					created_at timestamptz not null,
					primary key (painter_id, wheel_id, sheet),
					foreign key (wheel_id, painter_id) references wheels (id, painter_id) on delete cascade
				);
				alter table sitting_readings add column told text;
				create unique index sitting_readings_told on sitting_readings (sitting_id, told);`).Error
		},
		Rollback: func(tx *gorm.DB) error {
			return tx.Exec(`drop index sitting_readings_told; alter table sitting_readings drop column told; drop table printed_plans, worked_plans`).Error
		},
	},
	{
		// Comparisons that the page sends again are kept once.
		ID: "202611-comparisons-told",
		Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
				alter table comparisons add column told text;
				create unique index comparisons_told on comparisons (painter_id, told);`).Error
		},
		Rollback: func(tx *gorm.DB) error {
			return tx.Exec(`drop index comparisons_told; alter table comparisons drop column told`).Error
		},
	},
	{
		// All strengths stand on one scale from the library of 2026.4 on: a strength that was taken
		// names the version it is of, and those of before become what leaves a tube's tint as it was.
		// A sitting names the version of all its paints.
		ID: "202611-one-scale",
		Migrate: func(tx *gorm.DB) error {
			if err := tx.Exec(`alter table taken_strengths add column library text not null default ''`).Error; err != nil {
				return err
			}
			if err := rescale(tx, beforeOneScale, firstOneScale); err != nil {
				return err
			}
			return nameVersions(tx, beforeOneScale)
		},
		Rollback: func(tx *gorm.DB) error {
			if err := rescale(tx, firstOneScale, beforeOneScale); err != nil {
				return err
			}
			return tx.Exec(`alter table taken_strengths drop column library`).Error
		},
	},
	{
		// A reading keeps where on which photo it is of, and a sitting what its painter is sure of.
		ID: "202611-on-photo",
		Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
				alter table sitting_readings add column on_photo jsonb;
				alter table sittings add column sure_light boolean not null default false;
				alter table sittings add column sure_tubes jsonb;`).Error
		},
		Rollback: func(tx *gorm.DB) error {
			return tx.Exec(`
				alter table sitting_readings drop column on_photo;
				alter table sittings drop column sure_light;
				alter table sittings drop column sure_tubes`).Error
		},
	},
	{
		// A tube that was taken by the words on it, which may stand for several pigments.
		ID: "202611-not-sure",
		Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`alter table tubes add column not_sure text not null default ''`).Error
		},
		Rollback: func(tx *gorm.DB) error {
			return tx.Exec(`alter table tubes drop column not_sure`).Error
		},
	},
	{
		ID: "202611-devices",
		Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
				alter table sessions add column at_home boolean not null default false;
				create table device_codes (
					painter_id bigint primary key references painters on delete cascade,
					code_hash bytea not null unique,
					token_hash bytea unique,
					device text not null default '',
					"check" text not null default '',
					at_home boolean not null default false,
					expires_at timestamptz not null
				);`).Error
		},
		Rollback: func(tx *gorm.DB) error {
			return tx.Exec(`drop table device_codes; alter table sessions drop column at_home`).Error
		},
	},
	{
		// All that is kept has an id by which it is known again wherever it is carried, and what can be
		// changed counts the changes that each profile made to it.
		ID: "202612-lasting-ids",
		Migrate: func(tx *gorm.DB) error {
			if err := tx.Exec(`alter table painters add column uid uuid not null default gen_random_uuid() unique`).Error; err != nil {
				return err
			}
			for _, of := range lasting {
				if err := tx.Exec(fmt.Sprintf(`
					alter table %[1]s add column uid uuid not null default gen_random_uuid();
					create unique index %[1]s_uid on %[1]s (%[2]s, uid);`, of.table, of.within)).Error; err != nil {
					return err
				}
			}
			// A column of a constant is there at once; a table is rewritten for the ids alone.
			for _, of := range counted {
				if err := tx.Exec(fmt.Sprintf(`
					alter table %[1]s add column version_vector jsonb not null default '{}';
					update %[1]s t set version_vector = jsonb_build_object(p.uid, 1) from painters p where p.id = t.painter_id;`, of.table)).Error; err != nil {
					return err
				}
			}
			if err := tx.Exec(`
				alter table wheels add column beside_of uuid;
				alter table comparisons add column beside_of uuid;
				create function count_change() returns trigger language plpgsql as $$
				declare who text;
				begin
					if current_setting('gyrophane.restoring', true) = 'on' then
						return new; -- what is restored brings its counts along
					end if;
					select uid::text into who from painters where id = new.painter_id;
					new.version_vector := new.version_vector || jsonb_build_object(who, coalesce((new.version_vector->>who)::bigint, 0) + 1);
					return new;
				end $$;`).Error; err != nil {
				return err
			}
			for _, of := range counted {
				if err := tx.Exec(fmt.Sprintf(`create trigger %[1]s_change before insert or update of %[2]s on %[1]s for each row execute function count_change()`, of.table, of.columns)).Error; err != nil {
					return err
				}
			}
			return nil
		},
		Rollback: func(tx *gorm.DB) error {
			for _, of := range counted {
				if err := tx.Exec(fmt.Sprintf(`drop trigger %[1]s_change on %[1]s; alter table %[1]s drop column version_vector`, of.table)).Error; err != nil {
					return err
				}
			}
			for _, of := range lasting {
				if err := tx.Exec(fmt.Sprintf(`alter table %s drop column uid`, of.table)).Error; err != nil {
					return err
				}
			}
			return tx.Exec(`drop function count_change(); alter table wheels drop column beside_of; alter table comparisons drop column beside_of; alter table painters drop column uid`).Error
		},
	},
	{
		ID: "202612-uploads",
		Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
				create table uploads (
					painter_id bigint primary key references painters on delete cascade,
					bytes bigint not null,
					have bigint not null default 0,
					created_at timestamptz not null
				);
				create table upload_pieces (
					painter_id bigint not null references uploads on delete cascade,
					number bigint not null,
					data bytea not null,
					primary key (painter_id, number)
				);`).Error
		},
		Rollback: func(tx *gorm.DB) error { return tx.Exec(`drop table upload_pieces, uploads`).Error },
	},
	{
		// The browsers in which a painter was signed in who was deleted are told so, for as long as they might have been.
		ID: "202612-gone",
		Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
				create table gone_sessions (
					token_hash bytea primary key,
					was bigint not null,
					expires_at timestamptz not null
				);`).Error
		},
		Rollback: func(tx *gorm.DB) error { return tx.Exec(`drop table gone_sessions`).Error },
	},
	{
		ID: "202612-old-box",
		Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`alter table painters add column old_box boolean not null default false`).Error
		},
		Rollback: func(tx *gorm.DB) error { return tx.Exec(`alter table painters drop column old_box`).Error },
	},
	{
		// A tube that is what it was taken for is known better by readings too.
		ID: "202612-known-together",
		Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`alter table taken_strengths add column kept boolean not null default false, add column known jsonb`).Error
		},
		Rollback: func(tx *gorm.DB) error {
			return tx.Exec(`delete from taken_strengths where kept; alter table taken_strengths drop column kept, drop column known`).Error
		},
	},
	{
		ID: "202612-attempts",
		Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`create table attempts (who_hash bytea primary key, paid_at timestamptz not null); create index on attempts (paid_at)`).Error
		},
		Rollback: func(tx *gorm.DB) error { return tx.Exec(`drop table attempts`).Error },
	},
	{
		// Longer work: what is to be done, and whose turn it is in each line. A lane says which job of the queue is the
		// painter's turn.
		ID: "202612-jobs",
		Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
				create table jobs (
					id bigint generated always as identity primary key,
					painter_id bigint not null references painters on delete cascade,
					line text not null,
					kind text not null,
					ticket text not null,
					args bytea not null,
					state text not null default 'waiting' check (state in ('waiting', 'running', 'done')),
					tries integer not null default 0,
					stage text not null default '',
					done integer not null default 0,
					of_all integer not null default 0,
					beat_at timestamptz,
					asked_at timestamptz,
					ended text not null default '',
					result bytea,
					created_at timestamptz not null default now(),
					ended_at timestamptz
				);
				create index jobs_painter on jobs (painter_id, line, id);
				create index jobs_open on jobs (line, id) where state <> 'done';
				create index jobs_ended on jobs (ended_at) where state = 'done';
				create table lanes (
					painter_id bigint not null references painters on delete cascade,
					line text not null,
					turn bigint,
					primary key (painter_id, line)
				);`).Error
		},
		Rollback: func(tx *gorm.DB) error { return tx.Exec(`drop table lanes, jobs`).Error },
	},
	{
		// What is shown to others. Whoever looks on is told of changes by triggers, so that none is left out.
		ID: "202612-showings",
		Migrate: func(tx *gorm.DB) error {
			if err := tx.Exec(`
				alter table comparisons add unique (id, painter_id);
				create table showings (
					id bigint generated always as identity primary key,
					painter_id bigint not null references painters on delete cascade,
					token_hash bytea not null unique,
					kind text not null,
					wheel_id bigint,
					comparison_id bigint,
					called text not null,
					medium text not null,
					light text not null,
					judged text not null,
					notes boolean not null,
					prices boolean not null,
					name boolean not null,
					live boolean not null,
					kept bytea,
					ends_at timestamptz,
					created_at timestamptz not null default now(),
					foreign key (wheel_id, painter_id) references wheels (id, painter_id) on delete cascade,
					foreign key (comparison_id, painter_id) references comparisons (id, painter_id) on delete cascade
				);
				create index showings_painter on showings (painter_id, id);
				create index showings_wheel on showings (wheel_id, painter_id);
				create index showings_comparison on showings (comparison_id, painter_id);
				create function tell_shown() returns trigger language plpgsql as $$
				begin
					if tg_table_name = 'showings' or exists (select from showings where painter_id = new.painter_id) then
						perform pg_notify('` + shown + `', coalesce(new.painter_id, old.painter_id)::text);
					end if;
					return null;
				end $$;
				create trigger tell_shown after delete on showings for each row execute function tell_shown();`).Error; err != nil {
				return err
			}
			for _, table := range []string{"wheels", "tubes", "comparisons"} {
				if err := tx.Exec("create trigger tell_shown after insert or update on " + table + " for each row execute function tell_shown()").Error; err != nil {
					return err
				}
			}
			return nil
		},
		Rollback: func(tx *gorm.DB) error {
			return tx.Exec(`drop table showings; drop function tell_shown cascade; alter table comparisons drop constraint comparisons_id_painter_id_key`).Error
		},
	},
	{
		// Sheets and sittings are shown too.
		ID: "202612-showings-of-sittings",
		Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
				alter table showings add sitting_id bigint, add sheet text not null default '', add photos boolean not null default false,
					add foreign key (sitting_id, painter_id) references sittings (id, painter_id) on delete cascade;
				create index showings_sitting on showings (sitting_id, painter_id);`).Error
		},
		Rollback: func(tx *gorm.DB) error {
			return tx.Exec(`delete from showings where kind in ('sheet', 'sitting'); alter table showings drop sitting_id, drop sheet, drop photos`).Error
		},
	},
	{
		// A class predicts: what it said is kept in numbers, who said it is not.
		ID: "202612-class-rounds",
		Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
				create table class_rounds (
					id bigint generated always as identity primary key,
					painter_id bigint not null references painters on delete cascade,
					wheel_id bigint references wheels on delete set null,
					called text not null,
					spacing text not null,
					token text not null unique,
					code text unique,
					place integer not null default 0,
					covered boolean not null default true,
					version integer not null default 1,
					opened_at timestamptz,
					open_until timestamptz,
					ended_at timestamptz,
					created_at timestamptz not null default now(),
					unique (id, painter_id)
				);
				create index class_rounds_painter on class_rounds (painter_id, id);
				create index class_rounds_wheel on class_rounds (wheel_id);
				create table class_questions (
					id bigint generated always as identity primary key,
					round_id bigint not null,
					painter_id bigint not null,
					place integer not null,
					called text not null,
					face bytea not null,
					truth jsonb not null,
					hands jsonb not null,
					tally jsonb not null,
					lifted boolean not null default false,
					unique (round_id, place),
					foreign key (round_id, painter_id) references class_rounds (id, painter_id) on delete cascade
				);
				create index class_questions_painter on class_questions (painter_id, round_id, place);
				create table class_pupils (
					pupil_hash bytea primary key,
					round_id bigint not null references class_rounds on delete cascade,
					joined_at timestamptz not null default now()
				);
				create index class_pupils_round on class_pupils (round_id);
				create table class_guesses (
					round_id bigint not null references class_rounds on delete cascade,
					place integer not null,
					pupil_hash bytea not null references class_pupils on delete cascade,
					hue smallint not null,
					verdict smallint not null,
					mud smallint not null,
					primary key (round_id, place, pupil_hash)
				);
				create index class_guesses_pupil on class_guesses (pupil_hash);`).Error
		},
		Rollback: func(tx *gorm.DB) error {
			return tx.Exec(`drop table class_guesses, class_pupils, class_questions, class_rounds`).Error
		},
	},
	{
		// What a class painted: what was read of its sheets, and neither photos nor names.
		ID: "202612-class-sheets",
		Migrate: func(tx *gorm.DB) error {
			return tx.Exec(`
				create table class_sheets (
					id bigint generated always as identity primary key,
					painter_id bigint not null references painters on delete cascade,
					wheel_id bigint references wheels on delete set null,
					name text not null,
					plan jsonb not null,
					created_at timestamptz not null default now(),
					unique (id, painter_id)
				);
				create index class_sheets_painter on class_sheets (painter_id, id);
				create index class_sheets_wheel on class_sheets (wheel_id);
				create table class_reads (
					id bigint generated always as identity primary key,
					class_sheet_id bigint not null,
					painter_id bigint not null,
					labs jsonb not null,
					created_at timestamptz not null default now(),
					foreign key (class_sheet_id, painter_id) references class_sheets (id, painter_id) on delete cascade
				);
				create index class_reads_sheet on class_reads (class_sheet_id, painter_id, id);
				create index class_reads_painter on class_reads (painter_id);`).Error
		},
		Rollback: func(tx *gorm.DB) error {
			return tx.Exec(`drop table class_reads, class_sheets`).Error
		},
	},
}

// lasting are the tables whose rows have a lasting id, and what has each once: a painter, or the one thing
// that goes two ways with all that it has been through.
var lasting = []struct{ table, within string }{
	{"tubes", "painter_id"}, {"tube_versions", "tube_id"}, {"box_changes", "painter_id"}, {"wheels", "painter_id"}, {"wheel_versions", "wheel_id"}, {"predictions", "wheel_id"},
	{"practice_rounds", "painter_id"}, {"pair_guesses", "painter_id"}, {"wanted_colours", "painter_id"}, {"comparisons", "painter_id"},
	{"sittings", "painter_id"}, {"sitting_photos", "painter_id"}, {"sitting_readings", "painter_id"}, {"takings", "painter_id"},
}

// counted are the tables whose rows count the changes made to them, by the profile that made them: a
// version vector. A trigger does, so that no change is left out; a change is one of these columns.
var counted = []struct{ table, columns string }{
	{"tubes", "version"}, {"wheels", "version"}, {"comparisons", "version"}, {"sittings", "plan, next_time, sure_light, sure_tubes"}, {"takings", "undone_at"}, {"pair_marks", "mark"},
}

// PutAside is a row that broke a key which came later; it is kept whole.
type PutAside struct {
	ID        int64
	FromTable string
	Why       string
	CreatedAt time.Time
}

// TableName is for GORM.
func (PutAside) TableName() string { return "put_aside" }

// PutAside lists the rows that were put aside, the first first, without what they hold; it is
// in the table put_aside.
func (s *Store) PutAside(ctx context.Context) (out []PutAside, err error) {
	err = s.with(ctx, func(db *gorm.DB) error { return db.Order("id").Limit(1000).Find(&out).Error })
	return out, err
}

// Pending is the migration that the database is waiting for; empty where it is up to date or
// holds no tables at all.
func (s *Store) Pending(ctx context.Context) (next string, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		var there bool
		table := gormigrate.DefaultOptions.TableName
		if err := db.Raw("select to_regclass(?) is not null", table).Scan(&there).Error; err != nil || !there {
			return err
		}
		var seen []string
		if err := db.Table(table).Pluck("id", &seen).Error; err != nil {
			return err
		}
		for _, m := range migrations {
			if !slices.Contains(seen, m.ID) {
				next = m.ID
				return nil
			}
		}
		return nil
	})
	return next, err
}

// Held is how many bytes the database takes up.
func (s *Store) Held(ctx context.Context) (bytes int64, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		return db.Raw("select pg_database_size(current_database())").Scan(&bytes).Error
	})
	return bytes, err
}

// Migrate brings the schema up to date. It fails, and the store does not become
// ready, where a newer program has been here, where tables or columns are not
// there that should be, and where there is something to bring up to date in a
// database that takes no changes.
func (s *Store) Migrate(ctx context.Context) (err error) {
	defer func() { s.prepared.Store(&preparation{err}) }()
	conn, err := s.sql.Conn(ctx)
	if err != nil {
		return fmt.Errorf("reach the database: %w", err)
	}
	defer conn.Close()
	if _, err := conn.ExecContext(ctx, "select pg_advisory_lock($1)", migrationLock); err != nil {
		return fmt.Errorf("take the migration lock: %w", err)
	}
	// The lock lives as long as its connection's session, so it is given back.
	defer conn.ExecContext(context.WithoutCancel(ctx), "select pg_advisory_unlock($1)", migrationLock)
	options := *gormigrate.DefaultOptions
	options.UseTransaction = true
	pending, err := s.pending(ctx, options.TableName)
	if err != nil {
		return err
	}
	if pending {
		if readOnly, err := s.readOnly(ctx); err != nil || readOnly {
			return errors.Join(err, errors.New("the tables are older than this program, and the database takes no changes: let it take changes, or start the program that made them"))
		}
		if err := gormigrate.New(s.db.WithContext(ctx), &options, migrations).Migrate(); err != nil {
			return fmt.Errorf("bring the tables up to date: %w", err)
		}
	}
	if err := s.migrateQueue(ctx); err != nil {
		return fmt.Errorf("bring the tables of the queue up to date: %w", err)
	}
	return s.complete(ctx)
}

// pending says whether there are migrations that the database has not seen. It
// fails where the database has seen one that is not known here.
func (s *Store) pending(ctx context.Context, table string) (bool, error) {
	db := s.db.WithContext(ctx)
	var there bool
	if err := db.Raw("select to_regclass(?) is not null", table).Scan(&there).Error; err != nil {
		return false, fmt.Errorf("look for the tables: %w", err)
	}
	if !there {
		return true, nil
	}
	var seen []string
	if err := db.Table(table).Order("id").Pluck("id", &seen).Error; err != nil {
		return false, fmt.Errorf("look for the migrations: %w", err)
	}
	known := map[string]bool{}
	for _, m := range migrations {
		known[m.ID] = true
	}
	var unknown []string
	for _, id := range seen {
		if !known[id] {
			unknown = append(unknown, id)
		}
	}
	if slices.ContainsFunc(unknown, func(id string) bool { return strings.HasSuffix(id, narrows) }) {
		return false, fmt.Errorf("the database was brought up to date by a newer Gyrophane (%s): start that one, or restore a copy of before", strings.Join(unknown, ", "))
	}
	return len(seen)-len(unknown) < len(migrations), nil
}

// rows are all things that are kept, for what their tables must look like.
var rows = []any{
	Painter{}, Session{}, DeviceCode{}, System{}, Wheel{}, WheelVersion{}, Tube{}, TubeVersion{}, BoxChange{}, Prediction{}, PairMark{}, Round{}, PairGuess{}, WantedColour{}, Comparison{}, Sitting{}, SittingEvent{}, SittingPhoto{}, SittingReading{}, Taking{}, TakenStrength{}, PutAside{}, WorkedPlan{}, PrintedPlan{}, Upload{}, UploadPiece{}, GoneSession{}, Attempt{}, Showing{},
}

// shapes is what GORM knows of rows.
var shapes sync.Map

// shapeOf is the table and the columns that the rows of a type stand in; row may be one, or point to one.
func shapeOf(row any) (*schema.Schema, error) {
	of, err := schema.Parse(row, &shapes, schema.NamingStrategy{})
	if err != nil {
		return nil, fmt.Errorf("the shape of a row: %w", err)
	}
	return of, nil
}

// complete fails where a table or column is not there, and names it.
func (s *Store) complete(ctx context.Context) error {
	var columns []struct{ TableName, ColumnName string }
	err := s.db.WithContext(ctx).Raw("select table_name, column_name from information_schema.columns where table_schema = current_schema()").Scan(&columns).Error
	if err != nil {
		return fmt.Errorf("look at the tables: %w", err)
	}
	there := map[string]map[string]bool{}
	for _, c := range columns {
		if there[c.TableName] == nil {
			there[c.TableName] = map[string]bool{}
		}
		there[c.TableName][c.ColumnName] = true
	}
	var missing []string
	for _, row := range rows {
		of, err := shapeOf(row)
		if err != nil {
			return err
		}
		if there[of.Table] == nil {
			missing = append(missing, "the table "+of.Table)
			continue
		}
		for _, column := range of.DBNames {
			if !there[of.Table][column] {
				missing = append(missing, "the column "+of.Table+"."+column)
			}
		}
	}
	if len(missing) > 0 {
		return fmt.Errorf("missing in the database: %s; restore a whole copy of it", strings.Join(missing, ", "))
	}
	return nil
}

// readOnly says whether the database takes no changes.
func (s *Store) readOnly(ctx context.Context) (yes bool, err error) {
	err = s.db.WithContext(ctx).Raw("select current_setting('transaction_read_only')::bool").Scan(&yes).Error
	return yes, err
}
