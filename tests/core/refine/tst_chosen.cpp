// What is done to outlines that are chosen: placed, sized, lined up, combined; shapes drawn; places snapped to.

#include <QTest>
#include <cmath>
#include <numbers>

#include "core/error.h"
#include "core/geometry/arc.h"
#include "core/geometry/circle.h"
#include "core/geometry/segment.h"
#include "core/refine/edit/chosen.h"
#include "core/refine/edit/groups.h"
#include "core/refine/edit/parts.h"
#include "core/refine/edit/shapes.h"
#include "core/refine/edit/snap.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::refine;
using namespace rim::test;

namespace {

Path box(double x, double y, double width, double height) {
  return polygonThrough({{x, y}, {x + width, y}, {x + width, y + height}, {x, y + height}});
}

double area(const Drawing& drawing) {
  double sum = 0;
  for (const Outline& outline : drawing.outlines) sum += signedArea(outline.path());
  return sum;
}

const std::set<refine::SnapTo> kAll{refine::SnapTo::Node,   refine::SnapTo::Crossing, refine::SnapTo::Middle,
                                    refine::SnapTo::Centre, refine::SnapTo::Quadrant, refine::SnapTo::Line};

}  // namespace

class TestChosen : public QObject {
  Q_OBJECT

 private slots:
  void sized() {
    const Drawing two = makeDrawing({box(0, 0, 10, 10), circlePath({30, 5}, 5)});
    const Drawing wide = refine::sizedTo(two, refine::Hold::LowerLeft, 70.0, {}, 0.001);
    QVERIFY(std::abs(boxOf(wide).width() - 70) < 1e-9 && std::abs(boxOf(wide).height() - 20) < 1e-9);
    QVERIFY2(wide.path(1).segments[0].kind == SegmentKind::Arc, "in proportion circles stay circles");
    QCOMPARE(wide.outlines[1].id, two.outlines[1].id);
    // Both ways apart, circles become ellipses, within the tolerance.
    const Drawing flat = refine::sizedTo(two, refine::Hold::UpperRight, 70.0, 5.0, 0.001);
    QVERIFY(std::abs(boxOf(flat).height() - 5) < 1e-6);
    QVERIFY(std::abs(boxOf(flat).high.x - 35) < 1e-6 && std::abs(boxOf(flat).high.y - 10) < 1e-6);
    QVERIFY(std::abs(std::abs(signedArea(flat.path(1))) - std::numbers::pi * 10 * 2.5) < 0.05);
    QVERIFY_THROWS_EXCEPTION(InputError, refine::sizedTo(two, refine::Hold::Centre, 0.0, {}, 0.001));
    QVERIFY_THROWS_EXCEPTION(InputError, refine::sizedTo(two, refine::Hold::Centre, std::nan(""), {}, 0.001));
    const Drawing upright = makeDrawing({Path{{1, 0}, {Segment::line({1, 9})}, false}});
    QVERIFY_THROWS_EXCEPTION(InputError, refine::sizedTo(upright, refine::Hold::Centre, 5.0, {}, 0.001));
  }

  void mirroredTheyStillRunRound() {
    const Drawing plate = makeDrawing({box(0, 0, 10, 10), reversed(circlePath({3, 5}, 2))});
    const Drawing turned = refine::mirrored(plate, true);
    QVERIFY(signedArea(turned.path(0)) > 0 && signedArea(turned.path(1)) < 0);
    QVERIFY(std::abs(circleOf(turned.path(1))->centre.x - 7) < 1e-9);
  }

  void linedUpAndSpaced() {
    const Drawing three = makeDrawing({box(0, 0, 10, 10), box(13, 4, 4, 4), box(40, 9, 10, 2)});
    const auto at = [](const Drawing& drawing, std::size_t i) { return rim::boxOf(drawing.path(i)); };
    const Drawing left = refine::alignedBy(three, refine::BoxSide::Left);
    const Drawing centre = refine::alignedBy(three, refine::BoxSide::Centre);
    for (std::size_t i = 0; i < 3; ++i) {
      QCOMPARE(at(left, i).low.x, 0.0);
      QVERIFY(std::abs(at(centre, i).low.y + at(centre, i).high.y - 11) < 1e-9);
    }
    // 50 wide in all, 24 of it outlines: two gaps of 13.
    const Drawing even = refine::spacedEvenly(three, true);
    QVERIFY(std::abs(at(even, 1).low.x - 23) < 1e-9);
    QCOMPARE(at(even, 0).low.x, 0.0);
    QVERIFY(std::abs(at(even, 2).high.x - 50) < 1e-9);
  }

  /// A ring is one part: its hole stays in it. Where all is one part, a hole is brought to the middle of its plate.
  void partsStayWhole() {
    const Drawing rings = makeDrawing({box(0, 0, 10, 10), reversed(circlePath({5, 5}, 2)), box(30, 3, 4, 4)});
    QCOMPARE(refine::partsOf(rings), (std::vector<std::vector<std::size_t>>{{0, 1}, {2}}));
    const Drawing right = refine::alignedBy(rings, refine::BoxSide::Right);
    QVERIFY(std::abs(rim::boxOf(right.path(1)).low.x - 27) < 1e-9);
    QCOMPARE(rim::boxOf(right.path(0)).high.x, 34.0);
    const Drawing centred = refine::centredOnLargest(rings);
    QVERIFY(centred.path(0) == rings.path(0) && centred.path(1) == rings.path(1));
    QVERIFY(distance(refine::pointOf(rim::boxOf(centred.path(2)), refine::Hold::Centre), {5, 5}) < 1e-9);
    const Drawing plate = makeDrawing({box(0, 0, 10, 10), reversed(circlePath({3, 4}, 2))});
    QVERIFY(distance(circleOf(refine::centredOnLargest(plate).path(1))->centre, {5, 5}) < 1e-9);
    const Drawing together = refine::grouped(rings, {rings.outlines[0].id, rings.outlines[2].id});
    QCOMPARE(refine::partsOf(together).size(), 2U);
    QVERIFY(refine::partsOf({}).empty() && refine::centredOnLargest({}).outlines.empty());
  }

  void copiesStandBehindTheirs() {
    const Drawing two = makeDrawing({box(0, 0, 1, 1), box(5, 0, 2, 2)});
    const Drawing six = refine::copiesBehindTheirs(refine::inRows(two, 3, 1, {1, 0}), 2);
    QCOMPARE(six.outlines.size(), 6U);
    for (std::size_t i = 0; i < 6; ++i) QCOMPARE(rim::boxOf(six.path(i)).width(), i < 3 ? 1.0 : 2.0);
  }

  void turnedAboutAPlace() {
    const Drawing turned = refine::rotated(makeDrawing({box(0, 0, 10, 4)}), 90, {0, 0});
    QVERIFY(distance(rim::boxOf(turned).low, {-4, 0}) < 1e-9 && distance(rim::boxOf(turned).high, {0, 10}) < 1e-9);
  }

  void theLargestIsCutAlongOthers() {
    const Drawing two = makeDrawing({box(0, 0, 10, 10), box(6, 6, 8, 8)});
    const Drawing apart = refine::cutAlongOthers(two);
    QCOMPARE(apart.outlines.size(), 2U);
    QVERIFY(std::abs(signedArea(apart.path(0)) - 84) < 1e-6 && std::abs(signedArea(apart.path(1)) - 16) < 1e-6);
    QCOMPARE(apart.outlines[0].id, two.outlines[0].id);
    QVERIFY(apart.outlines[1].id != two.outlines[0].id);
    // A strip right across: both sides of it and its middle.
    QCOMPARE(refine::cutAlongOthers(makeDrawing({box(0, 0, 10, 10), box(4, -3, 2, 16)})).outlines.size(), 3U);
    QVERIFY_THROWS_EXCEPTION(InputError, refine::cutAlongOthers(makeDrawing({box(0, 0, 9, 9), box(20, 0, 2, 2)})));
    QVERIFY_THROWS_EXCEPTION(InputError, refine::cutAlongOthers(makeDrawing({box(0, 0, 9, 9)})));
  }

  void areasAreCombined() {
    const Drawing two = makeDrawing({box(0, 0, 10, 10), box(6, 6, 8, 8)}, {{"a", 0, 0, 0}, {"b", 0, 0, 0}}, {0, 1});
    QVERIFY(std::abs(area(refine::combinedAreas(two, refine::AreaRule::Unite)) - (100 + 64 - 16)) < 1e-6);
    QVERIFY(std::abs(area(refine::combinedAreas(two, refine::AreaRule::Subtract)) - 84) < 1e-6);
    QVERIFY(std::abs(area(refine::combinedAreas(two, refine::AreaRule::Intersect)) - 16) < 1e-6);
    QVERIFY(std::abs(area(refine::combinedAreas(two, refine::AreaRule::Exclude)) - (84 + 48)) < 1e-6);
    const Drawing cut = refine::combinedAreas(two, refine::AreaRule::Subtract);
    QVERIFY2(cut.outlines.size() == 1 && cut.outlines[0].id == two.outlines[0].id,
             "the smaller one is gone, the larger is what is left");
    // A plate with a hole: the hole belongs to it, the disc is taken from both.
    const Drawing plate = makeDrawing({box(0, 0, 20, 20), reversed(circlePath({10, 10}, 4)), circlePath({20, 10}, 3)});
    const double left = 400 - std::numbers::pi * 16 - std::numbers::pi * 9 / 2;
    QVERIFY(std::abs(area(refine::combinedAreas(plate, refine::AreaRule::Subtract)) - left) < 1e-4);
    // An open one stays; nothing left, or nothing to combine, is told.
    const Path open{{0, 0}, {Segment::line({1, 9})}, false};
    const Drawing withOpen =
        refine::combinedAreas(makeDrawing({two.path(0), two.path(1), open}), refine::AreaRule::Unite);
    QVERIFY(std::any_of(withOpen.outlines.begin(), withOpen.outlines.end(),
                        [&open](const Outline& outline) { return outline.path() == open; }));
    QVERIFY_THROWS_EXCEPTION(InputError,
                             refine::combinedAreas(makeDrawing({two.path(0), open}), refine::AreaRule::Unite));
    QVERIFY_THROWS_EXCEPTION(InputError, refine::combinedAreas(makeDrawing({box(0, 0, 9, 9), box(20, 0, 2, 2), open}),
                                                               refine::AreaRule::Intersect));
  }

  void shapesBetweenTwoPlaces() {
    const double pi = std::numbers::pi;
    const auto areaOf = [](refine::ShapeKind kind, Point from, Point to, double rounding = 0) {
      return signedArea(refine::shapeBetween({kind, 6, rounding, 0.5}, from, to, 1e-4));
    };
    QVERIFY(std::abs(areaOf(refine::ShapeKind::Rectangle, {10, 8}, {0, 0}) - 80) < 1e-9);
    QVERIFY(std::abs(areaOf(refine::ShapeKind::Rectangle, {0, 0}, {10, 8}, 2) - (80 - (4 - pi) * 4)) < 1e-9);
    QVERIFY(std::abs(areaOf(refine::ShapeKind::Circle, {5, 5}, {5, 8}) - 9 * pi) < 1e-9);
    QVERIFY(std::abs(areaOf(refine::ShapeKind::Ellipse, {0, 0}, {10, 4}) - pi * 10) < 0.01);
    QVERIFY(std::abs(areaOf(refine::ShapeKind::Slot, {0, 0}, {10, 4}) - (24 + pi * 4)) < 1e-9);
    // A hexagon of side r: 3 sqrt(3) / 2 r^2.
    QVERIFY(std::abs(areaOf(refine::ShapeKind::Polygon, {0, 0}, {0, 2}) - 6 * std::sqrt(3.0)) < 1e-9);
    const Path star = refine::shapeBetween({refine::ShapeKind::Star, 5, 0, 0.4}, {0, 0}, {0, 10}, 1e-4);
    QCOMPARE(star.segments.size(), 10U);
    QVERIFY(!refine::shapeBetween({refine::ShapeKind::Line, 6, 0, 0.5}, {0, 0}, {1, 1}, 1e-4).closed);
    for (const refine::ShapeKind kind :
         {refine::ShapeKind::Line, refine::ShapeKind::Rectangle, refine::ShapeKind::Circle, refine::ShapeKind::Star})
      QVERIFY_THROWS_EXCEPTION(InputError, refine::shapeBetween({kind, 6, 0, 0.5}, {3, 3}, {3, 3}, 1e-4));
    // A slot as long as it is wide is a circle of four arcs.
    QCOMPARE(refine::shapeBetween({refine::ShapeKind::Slot, 6, 0, 0.5}, {0, 0}, {4, 4}, 1e-4).segments.size(), 4U);
  }

  void placesSnap_data() {
    QTest::addColumn<double>("x");
    QTest::addColumn<double>("y");
    QTest::addColumn<int>("to");
    QTest::addColumn<double>("wantedX");
    QTest::addColumn<double>("wantedY");
    QTest::newRow("node") << 0.3 << 0.2 << static_cast<int>(refine::SnapTo::Node) << 0.0 << 0.0;
    QTest::newRow("middle") << 5.2 << 0.3 << static_cast<int>(refine::SnapTo::Middle) << 5.0 << 0.0;
    QTest::newRow("line") << 2.5 << 0.3 << static_cast<int>(refine::SnapTo::Line) << 2.5 << 0.0;
    QTest::newRow("centre") << 30.2 << 4.9 << static_cast<int>(refine::SnapTo::Centre) << 30.0 << 5.0;
    QTest::newRow("quadrant") << 30.1 << 10.2 << static_cast<int>(refine::SnapTo::Quadrant) << 30.0 << 10.0;
    QTest::newRow("crossing") << 10.1 << 7.1 << static_cast<int>(refine::SnapTo::Crossing) << 10.0 << 7.0;
  }
  void placesSnap() {
    QFETCH(double, x);
    QFETCH(double, y);
    QFETCH(int, to);
    QFETCH(double, wantedX);
    QFETCH(double, wantedY);
    const Drawing drawing =
        makeDrawing({box(0, 0, 10, 10), circlePath({30, 5}, 5), Path{{2, 7}, {Segment::line({19, 7})}, false}});
    const auto found = refine::snapped(drawing, {x, y}, 0.6, kAll);
    QVERIFY(found.has_value());
    QCOMPARE(static_cast<int>(found->to), to);
    QVERIFY(distance(found->place, {wantedX, wantedY}) < 1e-9);
    // What is not wanted does not count, and neither does what is moved.
    std::set<refine::SnapTo> others = kAll;
    others.erase(found->to);
    const auto other = refine::snapped(drawing, {x, y}, 0.6, others);
    QVERIFY(!other || other->to != found->to);
    QVERIFY(!refine::snapped(drawing, {x, y}, 0.6, kAll,
                             {drawing.outlines[0].id, drawing.outlines[1].id, drawing.outlines[2].id})
                 .has_value());
    QVERIFY(!refine::snapped(drawing, {500, 500}, 0.6, kAll).has_value());
  }

  void quadrantsLieOnTheArc() {
    // A quarter from 45 to 135 degrees has one, at the top.
    const double r = 10;
    const double c = r * std::sqrt(0.5);
    const Drawing drawing =
        makeDrawing({Path{{c, c}, {Segment::arc({-c, c}, bulgeFromSweep(std::numbers::pi / 2))}, false}});
    QVERIFY(refine::snapped(drawing, {0.1, 10.1}, 0.5, {refine::SnapTo::Quadrant}).has_value());
    for (const Point p : {Point{10, 0}, Point{-10, 0}, Point{0, -10}})
      QVERIFY(!refine::snapped(drawing, p, 0.5, {refine::SnapTo::Quadrant}).has_value());
  }

  void guidesAndAGridAreSnappedTo() {
    const Drawing drawing = makeDrawing({box(0, 0, 10, 10)});
    const std::set<refine::SnapTo> all{refine::SnapTo::Node,  refine::SnapTo::Crossing, refine::SnapTo::Middle,
                                       refine::SnapTo::Guide, refine::SnapTo::Line,     refine::SnapTo::Grid};
    const refine::SnapAids aids{{{true, 4}, {false, 30}}, 2.5, {}};
    const auto at = [&](Point p, const std::set<refine::SnapTo>& wanted) {
      return refine::snapped(drawing, p, 0.6, wanted, {}, aids);
    };
    const auto is = [](const std::optional<refine::Snapped>& got, refine::SnapTo to, Point place) {
      return got && got->to == to && distance(got->place, place) < 1e-9;
    };
    QVERIFY(is(at({4.2, 21}, all), refine::SnapTo::Guide, {4, 21}));
    QVERIFY(is(at({17, 29.7}, all), refine::SnapTo::Guide, {17, 30}));
    QVERIFY2(is(at({4.3, 30.2}, all), refine::SnapTo::Crossing, {4, 30}), "two guides");
    QVERIFY2(is(at({4.3, 10.2}, all), refine::SnapTo::Crossing, {4, 10}), "a guide and an outline");
    QVERIFY(is(at({22.3, 17.7}, all), refine::SnapTo::Grid, {22.5, 17.5}));
    QVERIFY(!at({21.2, 16.2}, all));
    QVERIFY(!at({4.2, 21}, {refine::SnapTo::Node, refine::SnapTo::Line}));
    QVERIFY2(!at({4.3, 10.2}, {refine::SnapTo::Crossing}), "a guide that is not wanted crosses nothing");
  }

  /// The length of a tangent from outside: the square of the way to the centre less that of the radius.
  void placesThatALineTouchesAreSnappedTo() {
    const Path bow{{0, 0}, {Segment::cubic({10, 20}, {30, 20}, {40, 0})}, false};
    const Drawing drawing = makeDrawing({circlePath({30, 50}, 5), bow});
    const Point from{3, 45};
    const double reach = std::sqrt(std::pow(distance(from, {30, 50}), 2) - 25);
    for (const Point near : {Point{29.5, 45.3}, Point{28.4, 54.4}}) {
      const auto found = refine::snapped(drawing, near, 1.2, {refine::SnapTo::Tangent}, {}, {{}, 0, from});
      QVERIFY(found.has_value());
      QVERIFY(std::abs(distance(found->place, from) - reach) < 1e-9);
      QVERIFY(std::abs(dot(found->place - from, found->place - Point{30, 50})) < 1e-9);
    }
    // On a curve: the line runs along it there.
    const auto found = refine::snapped(drawing, {20, 15}, 3, {refine::SnapTo::Tangent}, {}, {{}, 0, Point{0, 16}});
    QVERIFY(found.has_value());
    const double t = nearestOn(bow.start, bow.segments[0], found->place);
    QVERIFY(std::abs(angleBetween(tangentAt(bow.start, bow.segments[0], t), found->place - Point{0, 16})) < 1e-6);
    QVERIFY(!refine::snapped(drawing, {28.4, 54.4}, 1.2, {refine::SnapTo::Tangent}));
    QVERIFY2(!refine::snapped(drawing, {28.4, 54.4}, 1.2, {refine::SnapTo::Tangent}, {}, {{}, 0, Point{31, 51}}),
             "from inside none does");
  }
};

RIM_TEST(TestChosen)
#include "tst_chosen.moc"
