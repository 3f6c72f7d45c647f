// Looking at the work: zoom, pan, compare, peek, nodes, keys and names for everything.

#include <QAbstractButton>
#include <QAbstractSlider>
#include <QAccessible>
#include <QComboBox>
#include <QLineEdit>
#include <QMenu>
#include <QPainter>
#include <QSlider>
#include <QToolButton>
#include <QWheelEvent>

#include "app/bench/outline_layer.h"
#include "support/test_list.h"
#include "window_fixture.h"

using namespace rim;
using namespace rim::app;
using namespace rim::test;

namespace {

QColor pixelAt(QWidget& widget, QPointF place) { return widget.grab().toImage().pixelColor(place.toPoint()); }

/// How much of the picture's light shows in the middle of the badge's navy ring.
int differenceOf(QWidget& widget, const QImage& other) {
  const QImage now = widget.grab().toImage();
  int different = 0;
  for (int y = 0; y < now.height(); y += 3) {
    for (int x = 0; x < now.width(); x += 3) different += now.pixel(x, y) != other.pixel(x, y) ? 1 : 0;
  }
  return different;
}

}  // namespace

class TestLooking : public QObject {
  Q_OBJECT

 private slots:
  /// The bench keeps what it painted while only the pointer moves; nothing that is set may stay unseen for that.
  void whatIsSetShowsAtOnce() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    Bench& bench = f.window->bench();
    QTest::mouseMove(&bench, {300, 300});
    QImage shown = bench.grab().toImage();
    const auto shows = [&] {
      const int changed = differenceOf(bench, shown);
      shown = bench.grab().toImage();
      return changed > 20;
    };
    QVERIFY(!shows());
    bench.setStrength(0.2);
    QVERIFY(shows());
    bench.setNodes(true);
    QVERIFY(shows());
    bench.setCompare(Compare::Seam);
    QVERIFY(shows());
    QTest::keyClick(&bench, Qt::Key_Left, Qt::ShiftModifier);
    QVERIFY(shows());
    bench.setPeek(true);
    QVERIFY(shows());
    bench.setPeek(false);
    QVERIFY(shows());
    bench.zoom(1.5);
    QVERIFY(shows());
    f.session().keepReference();
    QVERIFY(shows());
    bench.setOutlines(nullptr);
    QVERIFY(shows());
    f.window->actions().appearance->actions()[static_cast<int>(Appearance::Dark)]->trigger();
    QVERIFY(shows());
    f.window->resize(f.window->size() + QSize(40, 30));
    QCOMPARE(bench.grab().toImage().size(), bench.size() * bench.devicePixelRatioF());
    // The pointer's place is told wherever it goes.
    shown = bench.grab().toImage();
    QTest::mouseMove(&bench, {417, 123});
    QVERIFY(shows());
  }

  /// Most programs draw outlines whichever way they like.
  void aBorderIsNoHoleWhicheverWayItRuns() {
    for (const bool turned : {false, true}) {
      std::vector<Path> paths{polygonThrough({{20, 20}, {40, 20}, {40, 40}, {20, 40}}),
                              polygonThrough({{0, 0}, {60, 0}, {60, 60}, {0, 60}})};
      if (turned) {
        for (Path& path : paths) path = reversed(path);
      }
      QImage image(120, 120, QImage::Format_RGB32);
      image.fill(Qt::white);
      QPainter painter(&image);
      OutlineLayer(makeDrawing(paths)).paint(painter, Viewport{2, {0, 120}}, image.rect(), true);
      painter.end();
      QCOMPARE(image.pixelColor(60, 60), QColor(Qt::white));
      QVERIFY2(image.pixelColor(20, 60) != QColor(Qt::white), "the plate is filled round its hole");
      int holes = 0;
      for (int i = 0; i < 120; ++i) holes += image.pixelColor(i, 119) == look().hole ? 1 : 0;
      QCOMPARE(holes, 0);
    }
  }

  void theWheelZoomsToThePointer() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    Bench& bench = f.window->bench();
    const QPointF pointer(222, 333);
    const Point under = bench.viewport().toPicture(pointer);
    QWheelEvent wheel(pointer, bench.mapToGlobal(pointer), {}, {0, 240}, Qt::NoButton, Qt::NoModifier,
                      Qt::NoScrollPhase, false);
    const double before = bench.viewport().scale;
    QApplication::sendEvent(&bench, &wheel);
    QVERIFY(bench.viewport().scale > before * 1.4);
    QVERIFY(distance(bench.viewport().toPicture(pointer), under) < 1e-6);
    QTest::keyClick(&bench, Qt::Key_F);
    QCOMPARE(bench.viewport().scale, before);
  }

  void draggingMovesThePicture() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    Bench& bench = f.window->bench();
    const QPointF before = bench.viewport().origin;
    QTest::mousePress(&bench, Qt::LeftButton, {}, {300, 300});
    QTest::mouseMove(&bench, {340, 290});
    QTest::mouseRelease(&bench, Qt::LeftButton, {}, {340, 290});
    QCOMPARE(bench.viewport().origin, before + QPointF(40, -10));
    QTest::keyClick(&bench, Qt::Key_Left);
    QVERIFY(bench.viewport().origin.x() > before.x() + 40);
  }

  void theFittedViewFollowsTheWindow() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    const double before = f.window->bench().viewport().scale;
    f.window->resize(1600, 1100);
    QVERIFY(QTest::qWaitFor([&] { return f.window->bench().viewport().scale > before * 1.2; }, kPatienceMs));
  }

  void closedOutlinesAreFilledAndThePictureCanBeTakenAway() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    Bench& bench = f.window->bench();
    QTest::keyClick(&bench, Qt::Key_3);
    QVERIFY(bench.compare() == Compare::Outlines);
    // Between ring and letters, at the left of the middle: ink, so filled; in the sky: not.
    const QColor ink = pixelAt(bench, bench.viewport().toScreen({58, 160}));
    const QColor sky = pixelAt(bench, bench.viewport().toScreen({90, 160}));
    QCOMPARE(sky, look().sheet);
    QVERIFY(ink != sky && ink.green() > ink.red());
  }

  void pictureStrengthChangesTheOverlayOnly() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    Bench& bench = f.window->bench();
    QTest::keyClick(&bench, Qt::Key_1);
    const QImage before = bench.grab().toImage();
    f.find<QSlider>("strength")->setValue(5);
    QVERIFY(differenceOf(bench, before) > 1000);
    QTest::keyClick(&bench, Qt::Key_3);
    const QImage alone = bench.grab().toImage();
    QTest::keyClick(&bench, '.');
    QCOMPARE(differenceOf(bench, alone), 0);
    QVERIFY(f.window->preferences().pictureStrength > 0.1);
  }

  void theSeamCanBeDragged() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    Bench& bench = f.window->bench();
    QTest::keyClick(&bench, Qt::Key_2);
    const QImage before = bench.grab().toImage();
    const QPoint seam = bench.viewport().toScreen({160, 160}).toPoint();
    QTest::mousePress(&bench, Qt::LeftButton, {}, seam);
    QTest::mouseMove(&bench, seam + QPoint(90, 0));
    QTest::mouseRelease(&bench, Qt::LeftButton, {}, seam + QPoint(90, 0));
    QVERIFY(differenceOf(bench, before) > 500);
    // Sky on both sides of where the seam was: now both lie at its left and show the picture in full.
    QCOMPARE(pixelAt(bench, bench.viewport().toScreen({200, 220})),
             pixelAt(bench, bench.viewport().toScreen({100, 220})));
  }

  void peekingShowsThePictureAsLongAsItIsHeld() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    Bench& bench = f.window->bench();
    QTest::keyClick(&bench, Qt::Key_3);
    const QImage outlines = bench.grab().toImage();
    QTest::keyPress(f.find<QSlider>("corners"), Qt::Key_P);
    QVERIFY(bench.peeks());
    QVERIFY(differenceOf(bench, outlines) > 5000);
    QTest::keyRelease(f.find<QSlider>("corners"), Qt::Key_P);
    QCOMPARE(differenceOf(bench, outlines), 0);
    QTest::mousePress(f.find<QToolButton>("peek"), Qt::LeftButton);
    QVERIFY(bench.peeks());
    QTest::mouseRelease(f.find<QToolButton>("peek"), Qt::LeftButton);
    QVERIFY(!bench.peeks());
  }

  void aPInASizeFieldIsALetter() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    auto* width = f.find<QLineEdit>("width");
    width->setFocus();
    QTest::keyClick(width, Qt::Key_P);
    QVERIFY(!f.window->bench().peeks());
    QVERIFY(width->text().contains('p'));
  }

  void nodesAreShownByAKey() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    const QImage before = f.window->bench().grab().toImage();
    QTest::keyClick(&f.window->bench(), Qt::Key_N);
    QVERIFY(differenceOf(f.window->bench(), before) > 300);
    QVERIFY(f.window->preferences().nodes);
  }

  void eachStepHasItsPanel() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    for (int i = 0; i < 6; ++i) {
      QTest::keyClick(f.window.get(), static_cast<Qt::Key>(Qt::Key_1 + i), Qt::AltModifier);
      f.window->showStep(static_cast<Step>(i));
    }
    QVERIFY(f.find<QComboBox>("kind")->isVisible());
    QVERIFY(!f.find<QWidget>("threshold")->isVisible());
  }

  void darkAndLightCanBeChanged() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    const QList<QAction*> appearance = f.window->actions().appearance->actions();
    appearance[static_cast<int>(Appearance::Dark)]->trigger();
    QVERIFY(look().dark);
    QVERIFY(f.window->palette().color(QPalette::Window).lightness() < 80);
    appearance[static_cast<int>(Appearance::Light)]->trigger();
    QVERIFY(!look().dark);
  }

  void everyActionSaysWhatItDoes() {
    WindowFixture f;
    QSet<QString> keys;
    for (const QAction* action : f.window->findChildren<QAction*>()) {
      if (action->isSeparator() || action->menu() != nullptr || action->text().isEmpty()) continue;
      for (const QKeySequence& key : action->shortcuts()) {
        QVERIFY2(!keys.contains(key.toString()), qPrintable(key.toString() + " is there twice"));
        keys.insert(key.toString());
      }
    }
    QVERIFY(keys.size() > 15);
  }

  void everyControlHasANameForThoseWhoDoNotSeeIt() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    for (QWidget* widget : f.window->findChildren<QWidget*>()) {
      const bool control = qobject_cast<QAbstractButton*>(widget) || qobject_cast<QAbstractSlider*>(widget) ||
                           qobject_cast<QComboBox*>(widget) || qobject_cast<QLineEdit*>(widget);
      const bool inner = widget->objectName().startsWith("qt_") || widget->inherits("QScrollBar");
      if (!control || inner) continue;
      QAccessibleInterface* seen = QAccessible::queryAccessibleInterface(widget);
      QVERIFY2(seen != nullptr && !seen->text(QAccessible::Name).isEmpty(),
               qPrintable(QString(widget->metaObject()->className()) + " " + widget->objectName()));
    }
  }
};

RIM_TEST(TestLooking)
#include "tst_looking.moc"
