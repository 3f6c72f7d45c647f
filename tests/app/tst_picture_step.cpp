// The Picture step in the real window: what a picture is worth, and what was done to it.

#include <QCheckBox>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPushButton>
#include <QToolButton>

#include "app/steps/picture/step_list.h"
#include "app/steps/picture/step_text.h"
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

}  // namespace

class TestPictureStep : public QObject {
  Q_OBJECT

 private slots:
  void oneClickMakesThePhotoTraceable() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("window-card-photo.jpg")));
    f.window->showStep(MainWindow::kPicture);
    f.find<QPushButton>("makeTraceable")->click();
    QVERIFY(QTest::qWaitFor([&] { return !f.job().preparation.empty() && f.session().upToDate(); }, 60'000));
    QCOMPARE(f.job().tracing->outlines.size(), 27U);
    QVERIFY(!f.job().trace.lightIsInk);
    QCOMPARE(f.window->bench().grab().isNull(), false);
    f.window->actions().undo->trigger();
    QVERIFY(f.job().preparation.empty());
    QVERIFY(f.session().upToDate());
    QCOMPARE(f.job().picture.width(), 1600);
  }

  void whatAPictureIsWorthIsSaid() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("window-card-photo.jpg")));
    QVERIFY(QTest::qWaitFor([&] { return f.find<QLabel>("remark") != nullptr; }, 30'000));
    QStringList said;
    for (const QLabel* label : f.window->findChildren<QLabel*>("remark")) said << label->text();
    QVERIFY(said.join(" ").contains("Straighten"));
    QVERIFY(said.join(" ").contains("light"));
    QVERIFY(f.find<QLabel>("worth")->text().contains("strokes"));
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
    QVERIFY((f.job().preparation[1].what == Preparation(Thicken{3})));
    list->findChildren<QCheckBox*>().last()->click();
    QVERIFY(!f.job().preparation[1].on);
    list->findChildren<QCheckBox*>().last()->click();
    const QList<QToolButton*> buttons = list->findChildren<QToolButton*>();
    QVERIFY(!buttons[0]->isEnabled());
    buttons[2]->click();
    QVERIFY(std::holds_alternative<Thicken>(f.job().preparation[0].what));
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
    QVERIFY2(f.window->sentence().contains("no light sheet"), qPrintable(f.window->sentence()));
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

  void everyStepHasANameAndKeepsItsNumber() {
    const Preparation all[] = {Crop{},    CropToInk{}, Turn{},     Mirror{},       Straighten{}, EvenLight{},
                               Denoise{}, Thicken{},   FillGaps{}, FillPinholes{}, DropSpecks{}, Enlarge{}};
    for (const Preparation& what : all) {
      QVERIFY(!stepName(what).isEmpty());
      const auto number = numberOf(what);
      if (number) QCOMPARE(numberOf(withNumber(what, number->high))->value, number->high);
    }
    QVERIFY((cropFrom(cropText({1, 2, 3, 4})) == Crop{1, 2, 3, 4}));
    QVERIFY(!cropFrom("1,2,3"));
    QVERIFY(!cropFrom("1,2,3,x"));
  }
};

QTEST_MAIN(TestPictureStep)
#include "tst_picture_step.moc"
