// Chosen outlines placed, sized, lined up and combined in the window; shapes drawn, things measured, places snapped to.

#include <QApplication>
#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QDoubleSpinBox>
#include <QMenu>
#include <QPushButton>
#include <QSpinBox>
#include <QTimer>

#include "app/steps/refine/hand/arrange_bar.h"
#include "app/steps/refine/hand/measure_tool.h"
#include "app/steps/refine/hand/shape_tool.h"
#include "app/steps/refine/refine_room.h"
#include "app/widgets/length_field.h"
#include "core/geometry/circle.h"
#include "refine_fixture.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;
using namespace rim::app;

namespace {

/// Two squares that overlap, a disc beside them, and a bar.
Drawing parts() {
  return makeDrawing({polygonThrough({{0, 0}, {20, 0}, {20, 20}, {0, 20}}),
                      polygonThrough({{14, 14}, {30, 14}, {30, 30}, {14, 30}}), circlePath({60, 10}, 8),
                      polygonThrough({{80, 3}, {100, 3}, {100, 8}, {80, 8}})});
}

struct ArrangeFixture : RefineFixture {
  ArrangeFixture() : RefineFixture(parts()) {}
  template <class Field = LengthField>
  void type(const char* name, const QString& text) {
    auto* field = find<Field>(name);
    field->setFocus();
    field->selectAll();
    QTest::keyClicks(field, text);
    QTest::keyClick(field, Qt::Key_Return);
  }
  void arrange(const QString& name) {
    for (QAction* action : find<QPushButton>("arrange")->menu()->actions()) {
      if (QString(action->text()).remove('&') == name) return action->trigger();
    }
    QFAIL(qPrintable(name + " is not in the menu"));
  }
  double area() {
    double sum = 0;
    for (const Outline& outline : now().outlines) sum += signedArea(outline.path());
    return sum;
  }
};

}  // namespace

class TestArrangeStep : public QObject {
  Q_OBJECT

 private slots:
  void placeAndSizeAreTyped() {
    ArrangeFixture f;
    f.click({60, 10});
    QVERIFY(f.window->findChild<ArrangeBar*>()->isVisible());
    QCOMPARE(f.find<LengthField>("chosenWidth")->text(), QString("16"));
    f.type("chosenX", "100");
    QVERIFY(f.done());
    QVERIFY(std::abs(boxOf(f.now().path(2)).low.x - 100) < 1e-6);
    f.find<QComboBox>("chosenHold")->setCurrentIndex(static_cast<int>(refine::Hold::Centre));
    QCOMPARE(f.find<LengthField>("chosenX")->text(), QString("108"));
    f.type("chosenHeight", "1 in");
    QVERIFY(f.done());
    const Box box = boxOf(f.now().path(2));
    QVERIFY(std::abs(box.width() - 25.4) < 1e-3 && std::abs(lerp(box.low, box.high, 0.5).x - 108) < 1e-3);
    QVERIFY2(circleOf(f.now().path(2)).has_value(), "a circle stays one");
    f.type("chosenWidth", "-3");
    QVERIFY(!f.window->sentence().isEmpty());
    QCOMPARE(f.job().refine.size(), 1U);
    f.window->actions().undo->trigger();
    f.window->actions().undo->trigger();
    QVERIFY(f.done());
    QVERIFY(f.job().refine.empty());
  }

  void anAngleIsTyped() {
    ArrangeFixture f;
    f.click({90, 3});
    f.find<QComboBox>("chosenHold")->setCurrentIndex(static_cast<int>(refine::Hold::LowerLeft));
    f.type<QDoubleSpinBox>("chosenTurn", "30");
    QVERIFY(f.done());
    // The lower left corner stays, the lower side rises by 30 degrees.
    const Path bar = f.now().path(3);
    double nearest = 1;
    for (const Segment& s : bar.segments)
      nearest = std::min(nearest, distance(s.end, {80 + 20 * std::cos(M_PI / 6), 3 + 20 * 0.5}));
    QVERIFY2(nearest < 1e-6, qPrintable(QString::number(nearest)));
    QCOMPARE(f.find<QDoubleSpinBox>("chosenTurn")->value(), 0.0);
    f.window->actions().undo->trigger();
    QVERIFY(f.done());
    QVERIFY(f.job().refine.empty());
  }

  void widthAndHeightCanGoApart() {
    ArrangeFixture f;
    f.click({90, 3});
    f.find<QCheckBox>("inProportion")->setChecked(false);
    f.type("chosenWidth", "40");
    QVERIFY(f.done());
    const Box box = boxOf(f.now().path(3));
    QVERIFY(std::abs(box.width() - 40) < 1e-6 && std::abs(box.height() - 5) < 1e-6);
    f.type("chosenHeight", "2");
    QVERIFY(f.done());
    QVERIFY(std::abs(boxOf(f.now().path(3)).width() - 40) < 1e-6);
  }

  void oneIsBroughtToTheMiddleOfAnother() {
    ArrangeFixture f;
    f.click({10, 0});
    f.click({60, 2}, Qt::ShiftModifier);
    f.arrange("Centre on the largest");
    QVERIFY(f.done());
    QVERIFY(distance(refine::pointOf(boxOf(f.now().path(2)), refine::Hold::Centre), {10, 10}) < 1e-6);
  }

  void theLargestIsCutApart() {
    ArrangeFixture f;
    const double before = f.area();
    f.click({5, 0});
    f.click({25, 30}, Qt::ShiftModifier);
    f.arrange("Cut the largest along the others");
    QVERIFY(f.done());
    QCOMPARE(f.now().outlines.size(), 4U);
    QVERIFY(std::abs(before - 256 - f.area()) < 1e-6);
    f.arrange("Cut the largest along the others");
    QVERIFY2(f.window->sentence().contains("two closed outlines or more are needed"), "one part is chosen now");
  }

  void copiesAreMadeOfWhatIsChosen() {
    ArrangeFixture f;
    f.click({90, 3});
    const auto answer = [](const QString& first, const QString& second) {
      QTimer::singleShot(0, [first, second] {
        auto* dialog = qobject_cast<QDialog*>(QApplication::activeModalWidget());
        const auto fields = dialog->findChildren<QSpinBox*>();
        fields[0]->setValue(first.toInt());
        if (fields.size() > 1) fields[1]->setValue(second.toInt());
        QTest::keyClick(dialog, Qt::Key_Return);
      });
    };
    answer("3", "2");
    f.arrange("Rows of copies…");
    QVERIFY(f.done());
    QCOMPARE(f.now().outlines.size(), 9U);
    QVERIFY(std::abs(boxOf(pathsOf(f.now())).high.x - (80 + 3 * 20 + 2 * 5)) < 1e-6);
    f.window->actions().undo->trigger();
    QVERIFY(f.done());
    f.click({90, 3});
    answer("5", {});
    f.arrange("Copies on a circle…");
    QVERIFY(f.done());
    QCOMPARE(f.now().outlines.size(), 8U);
    QTimer::singleShot(0, [] { QTest::keyClick(QApplication::activeModalWidget(), Qt::Key_Escape); });
    f.arrange("Rows of copies…");
    QCOMPARE(f.job().refine.size(), 1U);
  }

  void theyAreLinedUpAndTurned() {
    ArrangeFixture f;
    f.window->room<RefineRoom>().actions().chooseAll->trigger();
    f.arrange("Line up below");
    QVERIFY(f.done());
    for (const Outline& outline : f.now().outlines) QVERIFY(std::abs(boxOf(outline.path()).low.y) < 1e-6);
    f.arrange("Even gaps, side by side");
    QVERIFY(f.done());
    f.arrange("Turn a quarter to the left");
    QVERIFY(f.done());
    const Box box = boxOf(pathsOf(f.now()));
    QVERIFY(std::abs(box.height() - 100) < 1e-6);
    QCOMPARE(f.hand().selecting().chosen().size(), 4U);
    f.arrange("Mirror top and bottom");
    QVERIFY(f.done());
    for (const Outline& outline : f.now().outlines) QVERIFY(signedArea(outline.path()) > 0);
    QCOMPARE(f.job().refine.size(), 1U);
  }

  void areasAreCombined_data() {
    QTest::addColumn<QString>("name");
    QTest::addColumn<double>("area");
    QTest::newRow("unite") << "Unite them" << 400.0 + 256 - 36;
    QTest::newRow("subtract") << "Take the smaller from the largest" << 400.0 - 36;
    QTest::newRow("intersect") << "Keep what both cover" << 36.0;
    QTest::newRow("exclude") << "Keep what only one covers" << 400.0 + 256 - 72;
  }
  void areasAreCombined() {
    QFETCH(QString, name);
    QFETCH(double, area);
    ArrangeFixture f;
    const double others = f.area() - 400 - 256;
    f.click({5, 5});
    f.click({25, 25}, Qt::ShiftModifier);
    f.arrange(name);
    QVERIFY(f.done());
    QVERIFY2(std::abs(f.area() - others - area) < 1e-6, qPrintable(QString::number(f.area() - others)));
    f.window->actions().undo->trigger();
    QVERIFY(f.done());
    QCOMPARE(f.now().outlines.size(), 4U);
    // One alone cannot be combined, and two that share nothing leave nothing.
    f.click({60, 10});
    f.arrange(name);
    QVERIFY(f.window->sentence().contains("cannot be combined"));
    QCOMPARE(f.now().outlines.size(), 4U);
  }

  void shapesAreDraggedClickedAndTyped() {
    ArrangeFixture f;
    f.key(Qt::Key_Q);  // nothing snaps
    f.key(Qt::Key_D);
    f.drag({40, 40}, {46, 40});
    QVERIFY(f.done());
    QCOMPARE(f.now().outlines.size(), 5U);
    const auto circle = circleOf(f.now().path(4));
    QVERIFY(circle && std::abs(circle->radius - 6) < 0.3);
    // A rectangle by two clicks, its size typed in between: keys with other meanings are typed, too.
    f.find<QComboBox>("shapeKind")->setCurrentIndex(static_cast<int>(refine::ShapeKind::Rectangle));
    f.find<QDoubleSpinBox>("shapeRounding")->setValue(2);
    f.click({50, 30});
    QTest::mouseMove(&f.window->bench(), f.onScreen({55, 33}));
    for (const QChar c : QString("12.5 x 6")) QTest::keyClick(&f.window->bench(), c.toLatin1());
    QVERIFY(f.hand().tool().hint().contains("12.5 x 6"));
    f.key(Qt::Key_Return);
    QVERIFY(f.done());
    QCOMPARE(f.now().outlines.size(), 6U);
    const Box box = boxOf(f.now().path(5));
    QVERIFY2(std::abs(box.width() - 12.5) < 1e-6 && std::abs(box.height() - 6) < 1e-6,
             qPrintable(QString::number(box.width())));
    QCOMPARE(f.now().path(5).segments.size(), 8U);
    // Esc lets go of one that was begun; undo takes one after the other back.
    f.click({70, 30});
    f.key(Qt::Key_Escape);
    f.key(Qt::Key_Return);
    QVERIFY(f.done());
    QCOMPARE(f.now().outlines.size(), 6U);
    f.window->actions().undo->trigger();
    QVERIFY(f.done());
    QCOMPARE(f.now().outlines.size(), 5U);
  }

  void placesSnapWhileDrawing() {
    ArrangeFixture f;
    f.key(Qt::Key_D);
    f.find<QComboBox>("shapeKind")->setCurrentIndex(static_cast<int>(refine::ShapeKind::Line));
    f.drag({20.4, 0.4}, {60.4, 10.3});  // near a corner, and near the disc's centre
    QVERIFY(f.done());
    const Path line = f.now().path(4);
    QVERIFY2(distance(line.start, {20, 0}) < 1e-6, "the corner");
    QVERIFY2(distance(line.segments[0].end, {60, 10}) < 1e-6, "the centre");
    // A node that is dragged comes to another outline's corner.
    f.key(Qt::Key_6);
    f.click({90, 3});
    f.click({80, 3});
    f.drag({80, 3}, {20.5, 20.4});
    QVERIFY(f.done());
    QVERIFY(distance(f.now().path(3).start, {20, 20}) < 1e-6);
  }

  void distancesAndSizesAreTold() {
    ArrangeFixture f;
    f.key(Qt::Key_0);
    BenchTool& tool = f.hand().tool();
    QTest::mouseMove(&f.window->bench(), f.onScreen({66.1, 15.2}));
    QVERIFY2(tool.hint().contains("arc of radius 8.00 mm"), qPrintable(tool.hint()));
    QTest::mouseMove(&f.window->bench(), f.onScreen({5, 6}));
    QVERIFY2(tool.hint().contains("400.00 mm² inside"), qPrintable(tool.hint()));
    f.click({0.3, 0.3});
    f.click({99.8, 8.2});
    QVERIFY2(tool.hint().contains("across 100.000, up 8.000"), qPrintable(tool.hint()));
    QVERIFY(tool.chosenText().contains("100.319"));
    QVERIFY(f.job().refine.empty());
    f.key(Qt::Key_Escape);
    QVERIFY(tool.chosenText().isEmpty());
  }
};

RIM_TEST(TestArrangeStep)
#include "tst_arrange_step.moc"
