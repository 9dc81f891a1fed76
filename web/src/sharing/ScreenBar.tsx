import {
  Camera,
  CameraOff,
  FlipHorizontal2,
  ImagePlus,
  MonitorX,
  RotateCw,
  Snowflake,
  Waves,
  ZoomIn,
  ZoomOut,
} from 'lucide-react';
import { useStore } from '../store/useStore';
import { classes } from '../ui/classes';
import { Button } from '../ui/Button';
import { IconButton } from '../ui/IconButton';
import type { PageDesk } from '../room/pageDesk';
import type { Presenter } from '../screen/presenter';
import { SimulatedScreen } from '../screen/simulatedScreen';
import { t } from '../words';
import { TimeLapseButton } from './TimeLapseButton';
import { VideoButton } from './VideoButton';

/** What is being shown, and how it is followed; for whoever shows it, and in short for everybody else. */
export default function ScreenBar({ desk, side }: { desk: PageDesk; side: 'left' | 'right' }) {
  const presenter = useStore(desk.room.sharing.presenter);
  const live = useStore(desk.screen.state);
  const classState = useStore(desk.classroom!.state);
  if (!classState?.screen || classState.ended) return null;
  const { screen } = classState;
  const isOwn = screen.presenter === desk.target.actor?.id;
  const back = screen.page !== classState.page && (desk.isTeacher || presenter !== undefined);
  return (
    <div
      role="group"
      aria-label={t('sharing.shownScreen')}
      data-bar="screen"
      className={classes(
        'absolute bottom-17 z-20 flex max-w-[calc(100%-1rem)] flex-wrap-reverse items-center gap-1 rounded-2xl bg-board forced-colors:border-2 p-1 text-paper shadow-xl max-lg:top-16 max-lg:bottom-auto lg:max-w-[calc(100%-12rem)] 2xl:bottom-2 2xl:max-w-[calc(100%-52rem)]',
        side === 'left' ? 'left-42 max-lg:left-2' : 'right-42 max-lg:right-2',
      )}
    >
      <span role="status" className="px-3 text-sm">
        {screen.away
          ? isOwn
            ? t('sharing.yourScreenIsAway')
            : t('sharing.screenIsAway', { name: desk.room.nameOf(screen.presenter) })
          : live?.certain === false
            ? t('sharing.notSureWhereTheContent')
            : presenter
              ? screen.page === classState.page
                ? t('common.theClassSeesThis')
                : t('sharing.theClassIsOnAnother')
              : t('sharing.shownBy', { name: desk.room.nameOf(screen.presenter) })}
      </span>
      {back && <Button onClick={() => desk.turnTo(screen.page)}>{t('sharing.backToIt')}</Button>}
      {screen.away && isOwn && !presenter && (
        <Button onClick={() => void showAgain(desk)}>{t('sharing.showAgain')}</Button>
      )}
      {presenter && <Controls presenter={presenter} desk={desk} />}
      {(presenter ?? desk.isTeacher) && (
        <Button
          look="onBoard"
          icon={<MonitorX aria-hidden size={18} />}
          onClick={() => (presenter ? void presenter.stop() : desk.room.sharing.stopOther())}
        >
          {t('sharing.stopShowing')}
        </Button>
      )}
    </div>
  );
}

function Controls({ presenter, desk }: { presenter: Presenter; desk: PageDesk }) {
  const { follow, frozen, mirrored, zoom, keeps } = useStore(presenter.state);
  const { source } = presenter;
  return (
    <>
      <IconButton
        label={t('sharing.inkFollowsWhatIsScrolled')}
        active={follow}
        icon={<Waves aria-hidden size={20} />}
        onClick={() => presenter.setFollow(!follow)}
      />
      <IconButton
        label={frozen ? t('sharing.letThePictureGoOn') : t('sharing.holdThePictureStill')}
        active={frozen}
        icon={
          source.kind === 'camera' ? (
            frozen ? (
              <Camera aria-hidden size={20} />
            ) : (
              <CameraOff aria-hidden size={20} />
            )
          ) : (
            <Snowflake aria-hidden size={20} />
          )
        }
        onClick={() => void presenter.setFrozen(!frozen)}
      />
      {source.kind === 'camera' && (
        <>
          <IconButton
            label={t('sharing.turnThePicture')}
            icon={<RotateCw aria-hidden size={20} />}
            onClick={() => presenter.turn()}
          />
          <IconButton
            label={t('sharing.mirrorThePicture')}
            active={mirrored}
            icon={<FlipHorizontal2 aria-hidden size={20} />}
            onClick={() => presenter.mirror()}
          />
          <IconButton
            label={t('sharing.closer')}
            disabled={zoom >= 4}
            icon={<ZoomIn aria-hidden size={20} />}
            onClick={() => presenter.zoomBy(0.5)}
          />
          <IconButton
            label={t('sharing.farther')}
            disabled={zoom <= 1}
            icon={<ZoomOut aria-hidden size={20} />}
            onClick={() => presenter.zoomBy(-0.5)}
          />
          <VideoButton desk={desk} />
          <TimeLapseButton desk={desk} />
        </>
      )}
      <IconButton
        label={t('sharing.keepAPictureWhenWriting')}
        active={keeps}
        icon={<ImagePlus aria-hidden size={20} />}
        onClick={() => presenter.setKeeps(!keeps)}
      />
      {source instanceof SimulatedScreen && <Practice screen={source} />}
    </>
  );
}

/** Works the practice screen. */
function Practice({ screen }: { screen: SimulatedScreen }) {
  return (
    <>
      <Button look="onBoard" onClick={() => screen.scrollBy(-240)}>
        {t('sharing.scrollUp')}
      </Button>
      <Button look="onBoard" onClick={() => screen.scrollBy(240)}>
        {t('sharing.scrollDown')}
      </Button>
      <Button look="onBoard" onClick={() => screen.show('article')}>
        {t('sharing.article')}
      </Button>
      <Button
        look="onBoard"
        onClick={() => screen.show('slides', screen.view === 'slides' ? screen.slide + 1 : screen.slide)}
      >
        {t('sharing.nextSlide')}
      </Button>
      <Button look="onBoard" onClick={() => screen.togglePlaying()}>
        {t('sharing.video')}
      </Button>
    </>
  );
}

/** Opens what was shown before the page was loaded anew; the browser asks which screen. */
async function showAgain(desk: PageDesk): Promise<void> {
  try {
    const source = await (await import('../screen/openSource')).openSource(desk.room.sharing.lastKind);
    if (source) await desk.room.sharing.present(source);
  } catch (error) {
    desk.tellProblem((error as Error).message);
  }
}
