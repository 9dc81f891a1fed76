import type { BlankSheet } from '@doodla/core';
import { Plus } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { lazy, Suspense, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { createBlankLesson } from '../api/lessons';
import { Button } from '../ui/Button';
import { MENU_ITEM, MenuContent } from '../ui/MenuContent';
import type { Beginning } from '../classroom/beginWith';
import { beginWith } from '../classroom/beginWith';
import { t } from '../words';

const PageDialog = lazy(() =>
  import('../pages/PageDialog').then((module) => ({ default: module.PageDialog })),
);

/** Lessons that begin without a document: on a blank page, on pictures, on a photo of paper. */
export function NewLessonMenu() {
  const [choosing, setChoosing] = useState(false);
  const pictures = useRef<HTMLInputElement>(null);
  const create = useCreateLesson();
  return (
    <>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger asChild>
          <Button icon={<Plus aria-hidden size={20} />}>{t('lessons.newLessonWithoutOne')}</Button>
        </DropdownMenu.Trigger>
        <MenuContent align="end">
          <DropdownMenu.Item className={MENU_ITEM} onSelect={() => setChoosing(true)}>
            {t('lessons.onABlankPage')}
          </DropdownMenu.Item>
          <DropdownMenu.Item className={MENU_ITEM} onSelect={() => pictures.current?.click()}>
            {t('lessons.fromPictures')}
          </DropdownMenu.Item>
          <DropdownMenu.Item className={MENU_ITEM} onSelect={() => create(undefined, { kind: 'photo' })}>
            {t('lessons.fromAPhotoOfA')}
          </DropdownMenu.Item>
        </MenuContent>
      </DropdownMenu.Root>
      <input
        ref={pictures}
        type="file"
        multiple
        accept="image/*,.heic,.heif"
        aria-label={t('lessons.choosePicturesForALesson')}
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          const files = [...(event.target.files ?? [])];
          if (files.length > 0) create(undefined, { kind: 'pictures', files });
        }}
      />
      <Suspense>
        {choosing && (
          <PageDialog
            title={t('lessons.aLessonOnBlankPages')}
            action={t('lessons.begin')}
            onClose={() => setChoosing(false)}
            onChoose={({ width, height, surface }) =>
              // Pictures are not offered where there is no lesson yet to keep them.
              surface.kind === 'blank' && create({ width, height, surface })
            }
          />
        )}
      </Suspense>
    </>
  );
}

/** Makes a lesson of one blank page and opens it. */
export function useCreateLesson() {
  const navigate = useNavigate();
  return (sheet?: BlankSheet, beginning?: Beginning) => {
    createBlankLesson(sheet).then(
      ({ id }) => {
        if (beginning) beginWith(id, beginning);
        void navigate(`/lesson/${id}`);
      },
      (error: Error) => toast.error(error.message),
    );
  };
}
