// Lines drawn click by click, arcs through three places, and fewer nodes by a slider, in a real window.
#include <QComboBox>
#include <QInputDialog>
#include <QLabel>
#include <QPushButton>
#include <QSlider>

#include "app/steps/refine/refine_room.h"
#include "core/geometry/arc.h"
#include "core/geometry/segment.h"
#include "core/refine/edit/shapes.h"
#include "refine_fixture.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;
using namespace rim::app;

namespace {

/// A disc of many short lines beside a square.
Drawing things() {
  std::vector<Point> ring;
  for (int i = 0; i < 180; ++i)
    ring.push_back(Point{80, 20} + Point{std::cos(i * M_PI / 90), std::sin(i * M_PI / 90)} * 15);
  return makeDrawing({polygonThrough({{0, 0}, {40, 0}, {40, 40}, {0, 40}}), polygonThrough(ring)});
}

struct DrawingFixture : RefineFixture {
  DrawingFixture() : RefineFixture(things()) {}
  void draw(int way) {
    key(Qt::Key_D);
    find<QComboBox>("shapeKind")->setCurrentIndex(static_cast<int>(refine::ShapeKind::Slot) + way);
    hand().snapping().setOn(false);
  }
  void type(const QString& text) { QTest::keyClicks(&window->bench(), text); }
  std::size_t count() { return now().outlines.size(); }
  Path last() { return now().outlines.back().path(); }
};

}  // namespace

class TestDrawingStep : public QObject {
  Q_OBJECT

 private slots:
  void linesAreDrawnClickByClick() {
    DrawingFixture f;
    f.draw(1);
    QVERIFY(f.hand().tool().hint().contains("begin"));
    f.click({5, 60});
    f.click({25, 60});
    f.click({25, 80});
    f.click({5, 60});  // the first place closes it
    QVERIFY(f.done());
    QCOMPARE(f.count(), 3U);
    QVERIFY(f.last().closed);
    QCOMPARE(f.last().segments.size(), 3U);
    // Left open by Return; Esc takes back one place after the other.
    f.click({45, 60});
    f.click({65, 60});
    f.click({65, 70});
    f.key(Qt::Key_Escape);
    f.key(Qt::Key_Return);
    QVERIFY(f.done());
    QCOMPARE(f.count(), 4U);
    QVERIFY(!f.last().closed);
    QVERIFY(std::abs(pathLength(f.last()) - 20) < 0.5);
    f.window->actions().undo->trigger();
    QVERIFY(f.done());
    QCOMPARE(f.count(), 3U);
  }

  void lengthsAndAnglesAreTyped() {
    DrawingFixture f;
    f.draw(1);
    f.click({5, 60});
    f.type("30<0");
    f.key(Qt::Key_Return);
    f.type("20<90");
    f.key(Qt::Key_Return);
    f.type("x");  // no number
    f.key(Qt::Key_Return);
    QVERIFY(f.done());
    QCOMPARE(f.count(), 3U);
    const Box box = boxOf(f.last());
    QVERIFY(std::abs(box.width() - 30) < 1e-6 && std::abs(box.height() - 20) < 1e-6);
    // A single line takes an angle, too.
    f.find<QComboBox>("shapeKind")->setCurrentIndex(static_cast<int>(refine::ShapeKind::Line));
    f.click({50, 60});
    f.type("10<45");
    f.key(Qt::Key_Return);
    QVERIFY(f.done());
    QVERIFY(std::abs(boxOf(f.last()).width() - 10 * std::sqrt(0.5)) < 1e-6);
  }

  void anArcRunsThroughThreePlaces() {
    DrawingFixture f;
    f.draw(2);
    f.click({10, 60});
    f.click({20, 70});
    QVERIFY(f.hand().tool().hint().contains("ends"));
    f.click({30, 60});
    QVERIFY(f.done());
    QCOMPARE(f.count(), 3U);
    QVERIFY(isArc(f.last().segments[0]));
    const Arc arc = arcFromBulge(f.last().start, f.last().segments[0].end, f.last().segments[0].bulge);
    QVERIFY2(std::abs(arc.radius - 10) < 0.3, qPrintable(QString::number(arc.radius)));
    // Begun and left: nothing was drawn.
    f.click({50, 60});
    f.key(Qt::Key_Return);
    QVERIFY(f.done());
    QCOMPARE(f.count(), 3U);
  }

  void whatIsChosenIsMirroredAcrossALine() {
    DrawingFixture f;
    f.hand().snapping().setOn(false);
    f.key(Qt::Key_M);
    QVERIFY(f.hand().tool().hint().contains("Choose outlines first"));
    f.drag({50, 0}, {50, 40});
    QVERIFY(f.window->sentence().contains("Choose outlines first"));
    f.key(Qt::Key_5);
    f.click({20, 20});
    f.key(Qt::Key_M);
    // A copy at the other side of an upright line.
    f.click({50, 0});
    f.click({50.2, 40}, Qt::ShiftModifier);
    QVERIFY(f.done());
    QCOMPARE(f.count(), 3U);
    const Box copy = boxOf(f.last());
    const double axis = (copy.high.x + boxOf(f.now().path(0)).low.x) / 2;
    QVERIFY2(std::abs(axis - 50) < 0.5, qPrintable(QString::number(axis)));
    QVERIFY(std::abs(copy.width() - 40) < 1e-6 && std::abs(copy.low.y) < 1e-6);
    QVERIFY(signedArea(f.last()) * signedArea(f.now().path(0)) > 0);
    QCOMPARE(f.hand().selecting().chosen().size(), 1U);  // the copy
    // The copy itself goes back, with Ctrl, where the square lies.
    f.click({50, 0});
    f.click({50.2, 40}, Qt::ShiftModifier | Qt::ControlModifier);
    QVERIFY(f.done());
    QCOMPARE(f.count(), 3U);
    QVERIFY(boxOf(f.last()).low.x < 1);
  }

  void theDrawingIsSizedByWhatIsKnownOfIt() {
    DrawingFixture f;
    f.key(Qt::Key_0);
    f.click({0, 0});
    f.click({40, 0});
    QVERIFY(f.hand().tool().hint().contains("in truth"));
    f.type("10");
    f.key(Qt::Key_Return);
    QVERIFY(f.done());
    QVERIFY2(std::abs(boxOf(f.now().path(0)).width() - 10) < 0.01,
             qPrintable(QString::number(boxOf(f.now().path(0)).width())));
    f.window->actions().undo->trigger();
    QVERIFY(f.done());
    QVERIFY(std::abs(boxOf(f.now().path(0)).width() - 40) < 0.01);
  }

  void arrowKeysMoveByTheStepThatIsSet() {
    DrawingFixture f;
    f.key(Qt::Key_5);
    f.click({20, 20});
    QTimer::singleShot(0, qApp, [] {
      auto* dialog = qobject_cast<QInputDialog*>(QApplication::activeModalWidget());
      QVERIFY(dialog != nullptr);
      dialog->setDoubleValue(2.5);
      dialog->accept();
    });
    f.window->room<RefineRoom>().actions().hand.nudgeStep->trigger();
    f.key(Qt::Key_Right);
    QVERIFY(f.done());
    QVERIFY(std::abs(boxOf(f.now().path(0)).low.x - 2.5) < 1e-6);
    f.key(Qt::Key_Up, Qt::ShiftModifier);
    QVERIFY(f.done());
    QVERIFY(std::abs(boxOf(f.now().path(0)).low.y - 25) < 1e-6);
  }

  void fewerNodesAreShownBeforeTheyAreTaken() {
    DrawingFixture f;
    QVERIFY(f.offered());
    auto* slider = f.find<QSlider>("simplify");
    auto* told = f.find<QLabel>("simplifyTold");
    auto* take = f.find<QPushButton>("takeSimpler");
    QVERIFY(!take->isEnabled());
    slider->setValue(20);
    QVERIFY(QTest::qWaitFor([take] { return take->isEnabled(); }, kPatienceMs));
    QVERIFY2(told->text().contains("184 nodes become"), qPrintable(told->text()));
    QVERIFY(f.job().refine.empty());
    take->click();
    QVERIFY(f.done());
    QVERIFY(countsOf(pathsOf(f.now())).nodes < 12);
    QVERIFY(std::holds_alternative<refine::Simplify>(f.job().refine.back()));
    QCOMPARE(slider->value(), 0);
    f.window->actions().undo->trigger();
    QVERIFY(f.done());
    // Of what is chosen alone.
    f.key(Qt::Key_5);
    QVERIFY(told->text().contains("all outlines"));
    f.click({20, 20});
    QVERIFY2(told->text().contains("what is chosen"), qPrintable(told->text()));
    slider->setValue(30);
    QVERIFY(QTest::qWaitFor([told] { return told->text().contains("4 nodes become 4"); }, kPatienceMs));
    QVERIFY2(!take->isEnabled(), "a square has no node too many");
    f.click({80, 20});
    QVERIFY(QTest::qWaitFor([take] { return take->isEnabled(); }, kPatienceMs));
    take->click();
    QVERIFY(f.done());
    QVERIFY(std::holds_alternative<refine::ByHand>(f.job().refine.back()));
    QCOMPARE(f.now().path(0).segments.size(), 4U);
    QVERIFY(f.now().path(1).segments.size() < 8);
  }
};

RIM_TEST(TestDrawingStep)
#include "tst_drawing_step.moc"
