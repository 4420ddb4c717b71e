import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { sendFile } from "../api/client";

/** A file whose rows are looked at before they are kept: which are left out, and the sending. */
export function useFileRows<T>(path: string, onKept: (kept: T) => void) {
  const [file, setFile] = useState<File | null>(null);
  const [leaveOut, setLeaveOut] = useState<number[]>([]);
  const send = (f: File, left: number[], keep: boolean) =>
    sendFile<T>(path, f, { keep: String(keep), leaveOut: left.map(String) });
  const look = useMutation({
    mutationFn: ({ f, left }: { f: File; left: number[] }) => send(f, left, false),
  });
  const keep = useMutation({
    mutationFn: ({ f, left }: { f: File; left: number[] }) => send(f, left, true),
    onSuccess: onKept,
  });
  const without = (f: File, left: number[]) => {
    setLeaveOut(left);
    keep.reset();
    look.mutate({ f, left });
  };
  return {
    /** What the file holds, once it was looked at. */
    got: look.data,
    leaveOut,
    busy: keep.isPending || look.isPending,
    problem: (keep.error ?? look.error) && `${file?.name}: ${(keep.error ?? look.error)?.message}`,
    choose: (f: File) => {
      setFile(f);
      without(f, []);
    },
    toggle: (row: number) =>
      file &&
      without(
        file,
        leaveOut.includes(row) ? leaveOut.filter((r) => r !== row) : [...leaveOut, row],
      ),
    leave: (rows: number[]) => file && without(file, [...leaveOut, ...rows]),
    keep: () => file && keep.mutate({ f: file, left: leaveOut }),
    kept: keep.isSuccess,
  };
}
