import type { Folder } from '@doodla/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { FolderOpen, FolderPlus, Pencil, Trash2 } from 'lucide-react';
import type { FormEvent } from 'react';
import { useState } from 'react';
import { changeFolder, createFolder, deleteFolder, foldersQuery } from '../api/lessons';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { TextField } from '../ui/TextField';
import { pathTo } from './arranged';
import { attempt } from './listedLesson';
import { t } from '../words';

interface FolderBarProps {
  /** The folder that is open; undefined where none is. */
  open: string | undefined;
  onOpen(folder: string | undefined): void;
}

type Naming = { making: true } | { renaming: Folder };

/** Where one is among the folders, what lies in the open one, and making, renaming and taking one away. */
export function FolderBar({ open, onOpen }: FolderBarProps) {
  const client = useQueryClient();
  const { data: folders = [] } = useQuery(foldersQuery);
  const [naming, setNaming] = useState<Naming>();
  const path = pathTo(folders, open);
  const here = path.at(-1);
  const name = (title: string) => {
    setNaming(undefined);
    if (naming && 'renaming' in naming)
      void attempt(client, changeFolder(naming.renaming.id, { title, parent: naming.renaming.parent }));
    else void attempt(client, createFolder({ title, parent: here?.id ?? null }));
  };
  const remove = async (folder: Folder) => {
    if (await attempt(client, deleteFolder(folder.id))) onOpen(folder.parent ?? undefined);
  };
  return (
    <div className="mb-5">
      {here && (
        <nav aria-label={t('lessons.folders')} className="mb-3 flex flex-wrap items-center gap-x-1 text-lg">
          <PathButton onClick={() => onOpen(undefined)} current={false}>
            {t('lessons.folders')}
          </PathButton>
          {path.map((folder) => (
            <span key={folder.id} className="flex items-center gap-1">
              <span aria-hidden>/</span>
              <PathButton onClick={() => onOpen(folder.id)} current={folder === here}>
                {folder.title}
              </PathButton>
            </span>
          ))}
        </nav>
      )}
      <ul className="mb-3 flex empty:hidden flex-wrap gap-3">
        {folders
          .filter(({ parent }) => parent === (here?.id ?? null))
          .map((folder) => (
            <li key={folder.id}>
              <Button icon={<FolderOpen aria-hidden size={20} />} onClick={() => onOpen(folder.id)}>
                {folder.title}
              </Button>
            </li>
          ))}
      </ul>
      <div className="flex flex-wrap gap-3">
        <Button icon={<FolderPlus aria-hidden size={20} />} onClick={() => setNaming({ making: true })}>
          {t('lessons.newFolder')}
        </Button>
        {here && (
          <>
            <Button icon={<Pencil aria-hidden size={18} />} onClick={() => setNaming({ renaming: here })}>
              {t('lessons.renameFolder')}
            </Button>
            <Button icon={<Trash2 aria-hidden size={18} />} onClick={() => void remove(here)}>
              {t('lessons.takeFolderAway')}
            </Button>
          </>
        )}
      </div>
      {naming && (
        <NameDialog
          of={'renaming' in naming ? naming.renaming : undefined}
          onName={name}
          onClose={() => setNaming(undefined)}
        />
      )}
    </div>
  );
}

interface PathButtonProps {
  current: boolean;
  onClick(): void;
  children: string;
}

function PathButton({ current, onClick, children }: PathButtonProps) {
  return (
    <button
      type="button"
      aria-current={current ? 'page' : undefined}
      onClick={onClick}
      className={`min-h-11 rounded-xl px-2 ${current ? 'font-bold' : 'underline'}`}
    >
      {children}
    </button>
  );
}

interface NameDialogProps {
  of: Folder | undefined;
  onName(title: string): void;
  onClose(): void;
}

function NameDialog({ of, onName, onClose }: NameDialogProps) {
  const keep = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    onName((new FormData(event.currentTarget).get('title') as string).trim());
  };
  return (
    <Modal title={of ? t('lessons.renameFolder') : t('lessons.newFolder')} open onOpenChange={onClose}>
      <form onSubmit={keep}>
        <TextField
          label={t('lessons.nameOfTheFolder')}
          name="title"
          defaultValue={of?.title}
          maxLength={100}
          required
        />
        <Button type="submit" look="main">
          {t('common.keepThisName')}
        </Button>
      </form>
    </Modal>
  );
}
