'use client';

import type { ComponentType } from 'react';
import type { Scene } from '@/core/scene/schema';
import { Fold } from '../controls/fold';
import { useScene } from '../editor/editor-context';

/** A part of a step: what stands on its line, and its controls. */
export interface StepPart {
  title: string;
  /** What was decided, in few words. */
  says: (scene: Scene) => string;
  Body: ComponentType;
}

interface PartFoldsProps<Name extends string> {
  names: readonly Name[];
  parts: Record<Name, StepPart>;
  /** The one that is open. */
  open: Name | undefined;
  onOpen: (name: Name | undefined) => void;
}

/** The parts of a step, one open at a time. */
export function PartFolds<Name extends string>({ names, parts, open, onOpen }: PartFoldsProps<Name>) {
  return names.map((name) => {
    const { Body } = parts[name];
    const toggle = () => onOpen(open === name ? undefined : name);
    return (
      <PartFold key={name} part={parts[name]} open={open === name} onToggle={toggle}>
        <Body />
      </PartFold>
    );
  });
}

function PartFold({
  part,
  ...fold
}: { part: StepPart } & Omit<Parameters<typeof Fold>[0], 'says' | 'title'>) {
  const says = useScene(({ scene }) => part.says(scene));
  return <Fold title={part.title} says={says} {...fold} />;
}
