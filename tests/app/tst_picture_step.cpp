// The Picture step in the real window: what a picture is worth, and what was done to it.

#include <QCheckBox>
#include <QDialog>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPainter>
#include <QPushButton>
#include <QTemporaryDir>
#include <QTimer>
#include <QToolButton>

#include "app/steps/picture/picture_room.h"
#include "app/steps/picture/step_list.h"
#include "app/steps/picture/step_text.h"
#include "support/test_list.h"
#include "window_fixture.h"

using namespace rim;
using namespace rim::app;
using namespace rim::test;

namespace {

void chooseFromAdd(WindowFixture& f, const QString& text) {
  for (QAction* action : f.find<QPushButton>("addStep")->menu()->actions()) {
    if (action->text() == text) action->trigger();
  }
}

/// Drags with the left button between two places of the picture, y up.
void dragOnBench(WindowFixture& f, Point from, Point to) {
  Bench& bench = f.window->bench();
  const auto at = [&bench](Point p) { return bench.viewport().toScreen(p).toPoint(); };
  QTest::mousePress(&bench, Qt::LeftButton, {}, at(from));
  for (int i = 1; i <= 4; ++i) QTest::mouseMove(&bench, at(lerp(from, to, i / 4.0)));
  QTest::mouseRelease(&bench, Qt::LeftButton, {}, at(to));
}

/// Ink in the light and in a shadow with a hard edge: no one threshold parts it from the paper.
QImage shadowed() {
  QImage image(600, 400, QImage::Format_RGB32);
  image.fill(QColor(235, 235, 235));
  QPainter painter(&image);
  painter.fillRect(300, 0, 300, 400, QColor(85, 85, 85));
  painter.fillRect(60, 80, 90, 200, QColor(90, 90, 90));
  painter.fillRect(420, 80, 90, 200, QColor(28, 28, 28));
  return image;
}

}  // namespace

class TestPictureStep : public QObject {
  Q_OBJECT

 private slots:
  void oneClickMakesThePhotoTraceable() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("window-card-photo.jpg")));
    f.window->showStep(Step::Picture);
    f.find<QPushButton>("makeTraceable")->click();
    QVERIFY(QTest::qWaitFor([&] { return !f.job().preparation.empty() && f.session().upToDate(); }, kPatienceMs));
    QCOMPARE(f.job().tracing->outlines.size(), 27U);
    QVERIFY(!f.job().trace.lightIsInk);
    QCOMPARE(f.window->bench().grab().isNull(), false);
    f.window->actions().undo->trigger();
    QVERIFY(f.job().preparation.empty());
    QVERIFY(f.session().upToDate());
    QCOMPARE(f.job().picture.width(), 1600);
  }

  void anotherWayToMakeItTraceableIsTaken() {
    WindowFixture f;
    const QTemporaryDir folder;
    const QString file = folder.filePath("shadow.png");
    QVERIFY(shadowed().save(file));
    QVERIFY(f.open(file));
    f.window->showStep(Step::Picture);
    QVERIFY(f.session().recipes().empty());
    f.find<QPushButton>("makeTraceable")->click();
    QVERIFY(QTest::qWaitFor([&] { return !f.job().preparation.empty() && f.session().upToDate(); }, kPatienceMs));
    const std::vector<picture::PictureRecipe> recipes = f.session().recipes();
    QVERIFY(recipes.size() > 1);
    QVERIFY(f.find<QToolButton>("recipe1")->isChecked());
    QVERIFY(!f.find<QToolButton>("recipe1")->icon().isNull());
    f.find<QToolButton>("recipe2")->click();
    QVERIFY(QTest::qWaitFor([&] { return f.session().upToDate(); }, kPatienceMs));
    QVERIFY(f.job().preparation == recipes[1].steps);
    QVERIFY(f.find<QToolButton>("recipe2")->isChecked());
    QVERIFY(!f.find<QToolButton>("recipe1")->isChecked());
    f.window->actions().undo->trigger();
    QVERIFY(f.job().preparation == recipes[0].steps);
    QVERIFY(f.find<QToolButton>("recipe1")->isChecked());
    // They belong to this picture only.
    QVERIFY(f.open(demoFile("badge.png")));
    QVERIFY(f.session().recipes().empty());
    QVERIFY(f.find<QToolButton>("recipe1") == nullptr || !f.find<QToolButton>("recipe1")->isVisible());
  }

  void whatAPictureIsWorthIsSaid() {
    WindowFixture f;
    f.window->showStep(Step::Picture);
    QVERIFY(f.open(demoFile("window-card-photo.jpg")));
    QVERIFY(QTest::qWaitFor([&] { return f.find<QLabel>("remark") != nullptr; }, kPatienceMs));
    QStringList said;
    for (const QLabel* label : f.window->findChildren<QLabel*>("remark")) said << label->text();
    QVERIFY(said.join(" ").contains("Straighten"));
    QVERIFY(said.join(" ").contains("light"));
    QVERIFY(f.find<QLabel>("worth")->text().contains("strokes"));
  }

  void whatAPictureIsWorthIsMeasuredWhenItIsShown() {
    WindowFixture f;
    f.window->showStep(Step::Trace);
    QVERIFY(f.open(demoFile("window-card-photo.jpg")));
    QVERIFY(f.find<QLabel>("remark") == nullptr);
    f.window->showStep(Step::Picture);
    QVERIFY(QTest::qWaitFor([&] { return f.find<QLabel>("remark") != nullptr; }, kPatienceMs));
  }

  void eachStepIsSwitchedAdjustedMovedAndRemoved() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    chooseFromAdd(f, "Turn left");
    chooseFromAdd(f, "Thicken strokes");
    QVERIFY(f.settle());
    QCOMPARE(f.job().preparation.size(), 2U);
    auto* list = f.find<StepList>("stepList");
    list->findChildren<QDoubleSpinBox*>().last()->setValue(3);
    QVERIFY((f.job().preparation[1].what == picture::Preparation(picture::Thicken{3})));
    list->findChildren<QCheckBox*>().last()->click();
    QVERIFY(!f.job().preparation[1].on);
    list->findChildren<QCheckBox*>().last()->click();
    const QList<QToolButton*> buttons = list->findChildren<QToolButton*>();
    QVERIFY(!buttons[0]->isEnabled());
    buttons[2]->click();
    QVERIFY(std::holds_alternative<picture::Thicken>(f.job().preparation[0].what));
    QVERIFY(f.settle());
    QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
    list->findChildren<QToolButton*>()[1]->click();
    QCOMPARE(f.job().preparation.size(), 1U);
    QVERIFY(f.settle());
    for (int i = 0; i < 7; ++i) f.window->actions().undo->trigger();
    QVERIFY(f.job().preparation.empty());
  }

  void aCropIsTyped() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    chooseFromAdd(f, "Crop by numbers");
    QVERIFY(f.settle());
    auto* field = f.find<StepList>("stepList")->findChild<QLineEdit*>(QString(), Qt::FindDirectChildrenOnly);
    for (QLineEdit* candidate : f.find<StepList>("stepList")->findChildren<QLineEdit*>()) {
      if (candidate->text().contains(',')) field = candidate;
    }
    QVERIFY(field != nullptr);
    field->selectAll();
    QTest::keyClicks(field, "100,70,120,100");
    QTest::keyClick(field, Qt::Key_Return);
    QVERIFY(f.settle());
    QCOMPARE(f.job().picture.width(), 120);
    field->selectAll();
    QTest::keyClicks(field, "1,2,3");
    QTest::keyClick(field, Qt::Key_Return);
    QVERIFY(f.window->sentence().contains("four whole numbers"));
    QCOMPARE(f.job().picture.width(), 120);
  }

  void whatCannotBeDoneLeavesTheLastGoodState() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    const auto tracing = f.job().tracing;
    chooseFromAdd(f, "Straighten a photographed sheet");
    QVERIFY(f.settle());
    QVERIFY2(f.window->sentence().contains("no sheet of paper"), qPrintable(f.window->sentence()));
    QVERIFY(f.job().preparation.empty());
    QCOMPARE(f.job().tracing, tracing);
  }

  void theOriginalCanBePeekedAt() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    chooseFromAdd(f, "Turn left");
    QVERIFY(f.settle());
    const QImage before = f.window->bench().grab().toImage();
    QTest::keyPress(&f.window->bench(), Qt::Key_O);
    QVERIFY(f.window->bench().grab().toImage() != before);
    QTest::keyRelease(&f.window->bench(), Qt::Key_O);
    QVERIFY(f.window->bench().grab().toImage() == before);
  }

  void aFrameIsDrawnAndCroppedTo() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    f.window->showStep(Step::Picture);
    f.find<QToolButton>("tool:Frame")->click();
    dragOnBench(f, {32, 288}, {100, 250});  // the upper left corner, y up
    f.find<QPushButton>("cropToFrame")->click();
    QVERIFY(f.settle());
    const auto* crop = std::get_if<picture::Crop>(&f.job().preparation.at(0).what);
    QVERIFY(crop != nullptr);
    QVERIFY(qAbs(crop->x - 100) <= 1 && qAbs(crop->y - 70) <= 1 && qAbs(crop->width - 188) <= 2);
    QCOMPARE(f.job().picture.width(), crop->width);
    QVERIFY(!f.find<QToolButton>("tool:Frame")->isChecked());
  }

  void aFrameAndCornersAreMovedByKeys() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    f.window->showStep(Step::Picture);
    Bench* bench = &f.window->bench();
    f.find<QToolButton>("tool:Frame")->click();  // 32,32 to 288,288
    QTest::keyClick(bench, Qt::Key_Right, Qt::ControlModifier);
    QTest::keyClick(bench, Qt::Key_Down);
    QTest::keyClick(bench, Qt::Key_Space);  // the upper left corner alone
    QTest::keyClick(bench, Qt::Key_Left);
    QTest::keyClick(bench, Qt::Key_Space);  // the lower right one
    QTest::keyClick(bench, Qt::Key_Up, Qt::ControlModifier);
    for (int k = 0; k < 60; ++k) QTest::keyClick(bench, Qt::Key_Right, Qt::ControlModifier);
    f.find<QPushButton>("cropToFrame")->click();
    QVERIFY(f.settle());
    QCOMPARE(std::get<picture::Crop>(f.job().preparation.at(0).what), (picture::Crop{41, 33, 279, 246}));

    f.window->actions().undo->trigger();
    QVERIFY(f.settle());
    f.find<QToolButton>("tool:Corners")->click();
    const QString before = bench->accessibleDescription();
    QTest::keyClick(bench, Qt::Key_Left, Qt::ControlModifier);
    QTest::keyClick(bench, Qt::Key_Space);
    QTest::keyClick(bench, Qt::Key_Up);
    QVERIFY(bench->accessibleDescription() != before);
    f.find<QPushButton>("straightenCorners")->click();
    QVERIFY(f.settle());
    const picture::Quad corners = *std::get<picture::Straighten>(f.job().preparation.at(0).what).corners;
    QCOMPARE(corners[0].x, 22.0);
    QCOMPARE(corners[1].y, 31.0);
    QCOMPARE(corners[2].y, 288.0);
  }

  void aToolIsPutAwayWhenThePictureBecomesAnother() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    f.window->showStep(Step::Picture);
    f.find<QToolButton>("tool:Frame")->click();
    QVERIFY(f.open(testPicture("plain.png")));
    QVERIFY(!f.find<QToolButton>("tool:Frame")->isChecked());
    QVERIFY(!f.find<QPushButton>("cropToFrame")->isVisible());
  }

  void cornersAreDraggedAndStraightened() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    f.window->showStep(Step::Picture);
    f.find<QToolButton>("tool:Corners")->click();
    dragOnBench(f, {32, 288}, {60, 270});
    f.find<QPushButton>("straightenCorners")->click();
    QVERIFY(f.settle());
    const auto* step = std::get_if<picture::Straighten>(&f.job().preparation.at(0).what);
    QVERIFY(step != nullptr && step->corners.has_value());
    QVERIFY(distance((*step->corners)[0], {60, 50}) < 2);
  }

  void aLineDrawnLevelTurnsThePicture() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    f.window->showStep(Step::Picture);
    f.find<QToolButton>("tool:Level")->click();
    // Rising to the right by 10 degrees: turned clockwise, which is negative.
    dragOnBench(f, {60, 100}, {260, 100 + 200 * std::tan(10 * M_PI / 180)});
    QVERIFY(f.settle());
    const auto* turn = std::get_if<picture::Turn>(&f.job().preparation.at(0).what);
    QVERIFY(turn != nullptr);
    QVERIFY2(qAbs(turn->degrees + 10) < 0.5, qPrintable(QString::number(turn->degrees)));
  }

  void theBrushWipesAndEachStrokeCanBeTakenBack() {
    WindowFixture f;
    QVERIFY(f.open(testPicture("plain.png")));
    QCOMPARE(f.job().tracing->outlines.size(), 1U);
    f.window->showStep(Step::Picture);
    f.find<QToolButton>("tool:Brush")->click();
    dragOnBench(f, {8, 24}, {8, 0});
    QVERIFY(f.settle());
    dragOnBench(f, {0, 18}, {40, 18});
    QVERIFY(f.settle());
    QCOMPARE(f.job().preparation.size(), 1U);
    QCOMPARE(std::get<picture::TouchUp>(f.job().preparation[0].what).strokes.size(), 2U);
    f.window->actions().undo->trigger();
    QCOMPARE(std::get<picture::TouchUp>(f.job().preparation[0].what).strokes.size(), 1U);
    f.window->actions().undo->trigger();
    QVERIFY(f.job().preparation.empty());
  }

  void aClickedColourBecomesPaper() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    f.window->showStep(Step::Picture);
    f.find<QToolButton>("tool:Colour")->click();
    const QPoint sky = f.window->bench().viewport().toScreen({90, 160}).toPoint();
    QTest::mouseClick(&f.window->bench(), Qt::LeftButton, {}, sky);
    QVERIFY(f.settle());
    QVERIFY(std::holds_alternative<picture::PickColour>(f.job().preparation.at(0).what));
    QCOMPARE(int(f.job().picture.grey->at<std::uint8_t>(160, 90)), 255);
    // In the same two clicks the rest becomes ink.
    f.window->actions().undo->trigger();
    QVERIFY(f.settle());
    f.find<QToolButton>("tool:Colour")->setChecked(true);
    f.find<QCheckBox>("rest")->setChecked(true);
    QTest::mouseClick(&f.window->bench(), Qt::LeftButton, {}, sky);
    QVERIFY(f.settle());
    QVERIFY(std::get<picture::PickColour>(f.job().preparation.at(0).what).rest);
    const std::uint64_t two = f.job().picture.histogram[0] + f.job().picture.histogram[255];
    QCOMPARE(two, static_cast<std::uint64_t>(320 * 320));
    QTest::keyClick(&f.window->bench(), Qt::Key_Escape);
    QVERIFY(!f.find<QToolButton>("tool:Colour")->isChecked());
  }

  void thePracticeCameraGivesAPhotoThatTraces() {
    WindowFixture f;
    QTimer::singleShot(0, f.window.get(), [&f] {
      auto* camera = f.find<QDialog>("practiceCamera");
      QVERIFY(camera != nullptr);
      camera->findChild<QPushButton*>("takePhoto")->click();
    });
    f.window->actions().camera->trigger();
    QVERIFY(QTest::qWaitFor([&] { return f.session().upToDate() && f.session().hasPicture(); }, kPatienceMs));
    QCOMPARE(f.job().picture.width(), 1600);
    f.window->room<PictureRoom>().actions().traceable->trigger();
    QVERIFY(QTest::qWaitFor([&] { return !f.job().preparation.empty() && f.session().upToDate(); }, kPatienceMs));
    QCOMPARE(f.job().tracing->outlines.size(), 27U);
  }

  void theNoteOfOriginGoesIntoTheFileOnRequest() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    QVERIFY(!f.find<QCheckBox>("withOrigin")->isEnabled());
    f.window->showStep(Step::Picture);
    auto* origin = f.find<QLineEdit>("origin");
    origin->setFocus();
    QTest::keyClicks(origin, "drawn by the loft");
    QTest::keyClick(origin, Qt::Key_Return);
    QCOMPARE(f.job().origin, std::string("drawn by the loft"));
    QVERIFY(f.session().upToDate());
    job::FileWish wish;
    wish.settings.withOrigin = true;
    const QString file = f.folder.filePath("noted.svg");
    f.session().exportTo(file, wish);
    QVERIFY(f.settle());
    QFile written(file);
    QVERIFY(written.open(QIODevice::ReadOnly));
    QVERIFY(written.readAll().contains("<desc>drawn by the loft</desc>"));
    f.window->actions().undo->trigger();
    QVERIFY(f.job().origin.empty());
  }

  void everyStepHasANameAndKeepsItsNumber() {
    const picture::Preparation all[] = {picture::Crop{},           picture::CropToInk{},   picture::Turn{},
                                        picture::Mirror{},         picture::Straighten{},  picture::EvenLight{},
                                        picture::Denoise{},        picture::Thicken{},     picture::FillGaps{},
                                        picture::FillPinholes{},   picture::DropSpecks{},  picture::Enlarge{},
                                        picture::LocalThreshold{}, picture::SmoothEdges{}, picture::TouchUp{},
                                        picture::ClearFrame{},     picture::PickColour{}};
    for (const picture::Preparation& what : all) {
      QVERIFY(!stepName(what).isEmpty());
      const auto number = numberOf(what);
      if (number) QCOMPARE(numberOf(withNumber(what, number->high))->value, number->high);
    }
    QVERIFY((cropFrom(cropText({1, 2, 3, 4})) == picture::Crop{1, 2, 3, 4}));
    QVERIFY(!cropFrom("1,2,3"));
    QVERIFY(!cropFrom("1,2,3,x"));
  }
};

RIM_TEST(TestPictureStep)
#include "tst_picture_step.moc"
