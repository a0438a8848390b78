import { Textarea } from '@mantine/core';
import { useState } from 'react';

interface WordsProps {
  label: string;
  value: string;
  placeholder: string;
  lines?: number;
  /** Letters at most. */
  most?: number;
  onKeep: (text: string) => void;
}

/** Words that are kept when they are left. */
export function Words({ label, value, placeholder, lines = 2, most = 2000, onKeep }: WordsProps) {
  const [typed, setTyped] = useState<string>();
  const text = typed ?? value;
  return (
    <Textarea
      label={label}
      placeholder={placeholder}
      autosize
      minRows={lines}
      maxRows={10}
      maxLength={most}
      mb={8}
      value={text}
      onChange={(event) => setTyped(event.currentTarget.value)}
      onBlur={() => {
        if (typed !== undefined && typed.trim() !== value) onKeep(typed.trim());
        setTyped(undefined);
      }}
    />
  );
}
