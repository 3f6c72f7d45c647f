// Where borders meet. Truth: places that the lines were drawn through.

#include <QTest>
#include <numbers>

#include "core/trace/inks/junction.h"
#include "support/test_list.h"

using namespace rim;

namespace {

const Point kTrue{10.3, 7.6};

/// A border that ends `short_` px before the true place.
trace::inks::MeetingLine rayAt(double degrees, double short_) {
  const double angle = degrees * std::numbers::pi / 180;
  const Point direction{std::cos(angle), std::sin(angle)};
  return {kTrue - direction * short_, direction};
}

}  // namespace

class TestJunction : public QObject {
  Q_OBJECT

 private slots:
  void threeEndsMeetWhereTheyPoint() {
    trace::inks::BordersMeeting meeting;
    meeting.seen = {10, 8};
    for (const double degrees : {20.0, 140.0, 265.0}) meeting.ends.push_back(rayAt(degrees, 1.6));
    QVERIFY(distance(trace::inks::meetingPlace(meeting), kTrue) < 0.01);
  }

  void anEndMeetsTheWayItEndsOn() {
    const Path way{{-20, 7.6}, {Segment::line({60, 7.6})}, false};
    trace::inks::BordersMeeting meeting;
    meeting.seen = {10.5, 7.5};
    meeting.through = {&way};
    meeting.ends = {rayAt(70, 2)};
    const Point place = trace::inks::meetingPlace(meeting);
    QVERIFY(distance(place, kTrue) < 0.02);
    QCOMPARE(place.y, 7.6);  // on the way exactly
  }

  void onACircleToo() {
    // A circle of radius 15 round (10.3, -7.4): its top is the true place.
    const Path circle{{25.3, -7.4}, {Segment::arc({-4.7, -7.4}, 1), Segment::arc({25.3, -7.4}, 1)}, true};
    trace::inks::BordersMeeting meeting;
    meeting.seen = {10, 8};
    meeting.through = {&circle};
    meeting.ends = {rayAt(-90, 3)};
    QVERIFY(distance(trace::inks::meetingPlace(meeting), kTrue) < 0.01);
  }

  void twoWaysCross() {
    const Path one{{0.3, -2.4}, {Segment::line({20.3, 17.6})}, false};
    const Path other{{20.3, -2.4}, {Segment::line({0.3, 17.6})}, false};
    trace::inks::BordersMeeting meeting;
    meeting.seen = {10, 8};
    meeting.through = {&one, &other};
    QVERIFY(distance(trace::inks::meetingPlace(meeting), kTrue) < 0.01);
  }

  void whatPointsAwayIsNotBelieved() {
    trace::inks::BordersMeeting meeting;
    meeting.seen = {10, 8};
    meeting.ends = {{{40, 40}, {1, 0}}, {{40, 40}, {0, 1}}};
    QCOMPARE(trace::inks::meetingPlace(meeting), meeting.seen);
  }

  void oneThatPointsElsewhereIsLeftOut() {
    // It has a corner just before the junction: its line passes 4 px beside it.
    trace::inks::BordersMeeting meeting;
    meeting.seen = {10, 8};
    for (const double degrees : {20.0, 140.0, 265.0}) meeting.ends.push_back(rayAt(degrees, 1.6));
    meeting.ends[1].place = meeting.ends[1].place + leftNormal(meeting.ends[1].direction) * 4;
    QVERIFY(distance(trace::inks::meetingPlace(meeting), kTrue) < 0.05);
  }

  void aSmallAngleIsFollowedFarther() {
    // What lies between the borders is thinner than two pixels for 8 px: that is how far off the junction is seen.
    const Path edge{{10.3, -60}, {Segment::line({10.3, 80})}, false};
    trace::inks::BordersMeeting meeting;
    meeting.seen = kTrue - Point{0, 8};
    meeting.through = {&edge};
    meeting.ends = {rayAt(90 - 17, 12)};
    QVERIFY(distance(trace::inks::meetingPlace(meeting), kTrue) < 0.1);
  }

  void aLongLineIsNotTurned_data() {
    QTest::addColumn<double>("aside");
    QTest::addColumn<int>("segments");
    QTest::newRow("on its line") << 0.0 << 1;
    QTest::newRow("hardly aside") << 0.2 << 1;
    QTest::newRow("aside") << 1.5 << 2;
    QTest::newRow("to the other side") << -1.5 << 2;
  }
  void aLongLineIsNotTurned() {
    QFETCH(double, aside);
    QFETCH(int, segments);
    const Path line{{0, 0}, {Segment::line({40, 0})}, false};
    const Path at = trace::inks::broughtTo(line, {0, 0}, {42, aside});
    QCOMPARE(static_cast<int>(at.segments.size()), segments);
    QCOMPARE(at.segments.back().end, (Point{42, aside}));
    QCOMPARE(at.segments.front().end, segments == 2 ? (Point{40, 0}) : (Point{42, aside}));
    // At its start the same.
    const Path turned = trace::inks::broughtTo(line, {-2, aside}, {40, 0});
    QCOMPARE(static_cast<int>(turned.segments.size()), segments);
    QCOMPARE(turned.start, (Point{-2, aside}));
    // A short one has no line of its own.
    QCOMPARE(trace::inks::broughtTo({{0, 0}, {Segment::line({3, 0})}, false}, {0, 0}, {5, aside}).segments.size(),
             std::size_t{1});
  }

  void parallelEndsStayWhereTheyAreSeen() {
    trace::inks::BordersMeeting meeting;
    meeting.seen = {10, 7.6};
    meeting.ends = {rayAt(0, 2), rayAt(180, 2)};
    QVERIFY(distance(trace::inks::meetingPlace(meeting), meeting.seen) < 0.01);
  }
};

RIM_TEST(TestJunction)
#include "tst_junction.moc"
