// Outlines chosen by what they have in common, and by a line drawn round them.
#include <QtTest>

#include "core/refine/edit/likeness.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::refine;
using namespace rim::test;

namespace {

Path box(Point low, double width, double height) {
  return polygonThrough({low, low + Point{width, 0}, low + Point{width, height}, low + Point{0, height}});
}

/// A plate with two holes, of which one has an island, a bar, the same bar upright, a dot and an open line.
Drawing plate() {
  return makeDrawing({box({0, 0}, 60, 40), circlePath({15, 20}, 8), circlePath({45, 20}, 8), circlePath({15, 20}, 3),
                      box({70, 0}, 30, 5), box({70, 10}, 5.1, 30.2), circlePath({90, 20}, 2),
                      linePath({70, 50}, {90, 50}), linePath({40, 5}, {50, 5})},
                     {{"a"}, {"b"}}, {0, 0, 0, 0, 1, 1, 1, 1, 0});
}

std::set<std::size_t> places(const Drawing& drawing, const std::set<OutlineId>& outlines) {
  std::set<std::size_t> found;
  for (const OutlineId id : outlines) found.insert(*placeOf(drawing, id));
  return found;
}

std::set<std::size_t> like(const std::set<std::size_t>& to, refine::Likeness how) {
  const Drawing drawing = plate();
  std::set<OutlineId> given;
  for (const std::size_t place : to) given.insert(drawing.outlines[place].id);
  return places(drawing, refine::alike(drawing, given, how));
}

using Places = std::set<std::size_t>;

}  // namespace

class TestLikeness : public QObject {
  Q_OBJECT

 private slots:
  void bySize() {
    QCOMPARE(like({1}, refine::Likeness::Size), (Places{1, 2}));
    QCOMPARE(like({4}, refine::Likeness::Size), (Places{4, 5}));  // turned by a quarter, 1 % off
    QCOMPARE(like({1, 6}, refine::Likeness::Size), (Places{1, 2, 6}));
    QCOMPARE(like({3}, refine::Likeness::Smaller), (Places{3, 6}));
    QCOMPARE(like({}, refine::Likeness::Smaller), Places{});
  }

  void byLayerAndEnds() {
    QCOMPARE(like({6}, refine::Likeness::Layer), (Places{4, 5, 6, 7}));
    QCOMPARE(like({}, refine::Likeness::Open), (Places{7, 8}));
  }

  void allPartsOfALetter() {
    // i with its dot, a B with two holes beside it, a full stop after it, and a line of text below.
    const Drawing text =
        makeDrawing({box({0, 0}, 4, 20), circlePath({2, 25}, 2.4), box({8, 0}, 14, 26), box({11, 3}, 8, 8),
                     box({11, 15}, 8, 8), circlePath({26, 2}, 2), box({0, -34}, 4, 20), box({8, -34}, 14, 26)});
    const auto letter = [&text](std::size_t of) {
      return places(text, refine::alike(text, {text.outlines[of].id}, refine::Likeness::Letter));
    };
    QCOMPARE(letter(0), (Places{0, 1}));
    QCOMPARE(letter(1), (Places{0, 1}));
    QCOMPARE(letter(3), (Places{2, 3, 4}));
    QCOMPARE(letter(5), (Places{5}));
    QCOMPARE(letter(6), (Places{6}));
  }

  void byNesting() {
    QCOMPARE(like({0}, refine::Likeness::Within), (Places{1, 2, 3, 8}));
    QCOMPARE(like({0}, refine::Likeness::WithHoles), (Places{0, 1, 2, 8}));
    QCOMPARE(like({0, 1, 2, 4}, refine::Likeness::Outermost), (Places{0, 4}));
    QCOMPARE(like({0, 1, 2, 3, 8}, refine::Likeness::Others), (Places{4, 5, 6, 7}));
  }

  void byALineRoundThem() {
    const Drawing drawing = plate();
    const Path round = polygonThrough({{5, 10}, {25, 5}, {26, 32}, {4, 31}});
    QCOMPARE(places(drawing, refine::encircled(drawing, round, false)), (Places{1, 3}));
    const Path over = polygonThrough({{14, 15}, {80, 4}, {80, 2}, {14, 6}});
    QCOMPARE(places(drawing, refine::encircled(drawing, over, false)), (Places{8}));
    QCOMPARE(places(drawing, refine::encircled(drawing, over, true)), (Places{0, 1, 4, 8}));
  }
};

RIM_TEST(TestLikeness)
#include "tst_likeness.moc"
