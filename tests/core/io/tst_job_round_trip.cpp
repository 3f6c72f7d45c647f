// Random jobs of all kinds are saved and opened again: what was read or decided is the same to the last bit.

#include <QTemporaryDir>
#include <QTest>
#include <random>

#include "core/error.h"
#include "core/io/common/zip.h"
#include "core/io/job/job_file.h"
#include "core/io/read_drawing.h"
#include "core/io/svg/write_svg.h"
#include "core/job/stages.h"
#include "support/drawings.h"
#include "support/pictures.h"
#include "support/test_list.h"
#include "support/zip_parts.h"

using namespace rim;
using namespace rim::test;

namespace {

/// Numbers of every size, the awkward ones among them.
class Numbers {
 public:
  explicit Numbers(unsigned seed) : random_(seed) {}
  int whole(int low, int high) { return std::uniform_int_distribution(low, high)(random_); }
  double real(double low, double high) { return std::uniform_real_distribution(low, high)(random_); }
  bool flag() { return whole(0, 1) == 1; }
  Point place(double size, Point offset) { return offset + Point{real(-size, size), real(-size, size)}; }

 private:
  std::mt19937 random_;
};

Path randomPath(Numbers& n, double size, Point offset) {
  Path path{n.place(size, offset), {}, n.flag()};
  for (int k = n.whole(2, 12); k > 0; --k) {
    const Point end = n.place(size, offset);
    const int kind = n.whole(0, 2);
    path.segments.push_back(kind == 0   ? Segment::line(end)
                            : kind == 1 ? Segment::arc(end, n.real(-3, 3))
                                        : Segment::cubic(n.place(size, offset), n.place(size, offset), end));
  }
  if (path.closed) path.segments.back().end = path.start;
  return path;
}

Drawing randomDrawing(Numbers& n) {
  Drawing drawing;
  // Below and left of the origin, far away, tiny.
  const double size = std::pow(10, n.real(-3, 5));
  const Point offset = n.place(n.flag() ? 1e7 : 100, {});
  for (int k = n.whole(0, 3); k > 0; --k)
    drawing.layers.push_back({"Lage \"" + std::to_string(k) + "\" <ö>", n.whole(0, 255), n.whole(0, 255), 7});
  for (int k = n.whole(1, 9); k > 0; --k) {
    add(drawing, randomPath(n, size, offset));
    Outline& outline = drawing.outlines.back();
    if (!drawing.layers.empty())
      outline.layer = static_cast<std::size_t>(n.whole(0, static_cast<int>(drawing.layers.size()) - 1));
    if (n.flag()) outline.group = static_cast<std::uint32_t>(n.whole(0, 5));
    if (n.flag()) outline.role = static_cast<OutlineRole>(n.whole(0, 4));
    if (n.flag()) outline.stroke = {n.real(0, 9), n.real(0, 9), n.real(0, 9)};
    if (n.flag()) outline.setMinted(static_cast<std::uint32_t>(n.whole(0, 99)));
  }
  const Box box = boxOf(pathsOf(drawing));
  drawing.pageWidth = std::max(0.0, box.high.x);
  drawing.pageHeight = std::max(0.0, box.high.y);
  return drawing;
}

OutlineMark randomMark(Numbers& n) {
  return {static_cast<OutlineId>(n.whole(1, 99)), n.place(1e4, {}), n.place(100, {}), n.real(0, 1e6)};
}

/// Each kind of step now and then.
void refineSome(job::Job& job, Numbers& n) {
  using namespace refine;
  const auto joins = [&n] { return static_cast<refine::Joins>(n.whole(0, 2)); };
  const auto add = [&](const refine::Step& step) {
    if (n.whole(0, 3) == 0) job.refine.push_back(step);
  };
  add(refine::TrueUp{{static_cast<refine::TrueUpKind>(n.whole(0, 11)), static_cast<refine::TrueUpKind>(n.whole(0, 11))},
                     n.real(0.01, 3)});
  add(refine::Symmetrize{static_cast<refine::SymmetryWish>(n.whole(0, 2)),
                         static_cast<refine::SymmetryFrom>(n.whole(0, 5)), n.real(0.01, 3)});
  add(refine::Sharpen{n.real(0.1, 2)});
  add(refine::FilletCorners{n.real(0.1, 9)});
  add(refine::Simplify{n.real(0.01, 1), static_cast<CurveForm>(n.whole(0, 2))});
  add(refine::UniteAll{});
  add(refine::CombineWith{static_cast<refine::AreaRule>(n.whole(0, 3)),
                          std::make_shared<const Drawing>(randomDrawing(n)), "hole.svg"});
  add(refine::OffsetBy{n.real(-3, 3), joins()});
  add(refine::AddRing{n.real(0.1, 9), n.real(0.1, 9), joins()});
  add(refine::ThickenLines{n.real(0, 9), joins(), static_cast<refine::Tips>(n.whole(0, 1))});
  add(refine::StrokesTo{static_cast<mend::DoubleRule>(n.whole(1, 3)), n.real(0.1, 9)});
  add(refine::Rotate{n.real(-360, 360)});
  add(refine::Reflect{n.flag()});
  add(refine::ScaleBy{n.real(0.1, 9)});
  add(refine::PlaceAt{n.place(100, {}), static_cast<refine::Hold>(n.whole(0, 8))});
  add(refine::FitInto{n.real(1, 500), n.real(1, 500)});
  add(refine::Array{n.whole(1, 9), n.whole(1, 9), n.place(9, {})});
  add(refine::ArrayRound{n.whole(1, 9), n.place(90, {})});
  add(refine::Remove{{randomMark(n), randomMark(n)}});
  add(refine::Replace{"moved", {{randomMark(n), randomPath(n, 100, {})}}});
  add(refine::EditLayer{"cut", {"score \"1\"", 1, 2, 3}});
  add(refine::HideLayer{"fold"});
  add(refine::PutOnLayer{{randomMark(n)}, {"new", 9, 8, 7}});
  add(refine::LockLayer{"fold"});
  add(refine::MoveLayer{"cut", n.whole(0, 3)});
  add(refine::Group{{randomMark(n), randomMark(n)}, n.flag()});
  add(refine::ByHand{{refine::madeByHand(randomMark(n), {randomPath(n, 100, {}), randomPath(n, 1, {})}),
                      refine::madeByHand(randomMark(n), {}), refine::madeByHand({}, {randomPath(n, 9, {})}, 2)}});
}

/// Whether both lists say the same; drawings that steps combine with are compared by what they hold.
bool same(const std::vector<refine::Step>& a, const std::vector<refine::Step>& b) {
  return std::equal(a.begin(), a.end(), b.begin(), b.end(), [](refine::Step x, refine::Step y) {
    auto* p = std::get_if<refine::CombineWith>(&x);
    auto* q = std::get_if<refine::CombineWith>(&y);
    if (p == nullptr || q == nullptr) return x == y;
    return p->rule == q->rule && p->name == q->name && p->other->outlines == q->other->outlines &&
           p->other->layers == q->other->layers;
  });
}

job::FileWish randomWish(Numbers& n) {
  job::FileWish wish;
  wish.format = static_cast<job::FileFormat>(n.whole(0, 5));
  wish.settings.origin = static_cast<job::OriginAt>(n.whole(0, 5));
  wish.settings.ofStock = n.flag();
  wish.settings.onStock = n.flag();
  wish.settings.unit = n.flag() ? Unit::Inch : Unit::Millimetre;
  if (n.flag()) wish.settings.marginMm = n.real(0, 50);
  if (n.flag()) wish.settings.curves = CurveForm::Lines;
  wish.settings.element = static_cast<job::SvgElement>(n.whole(0, 2));
  wish.settings.toleranceMm = n.flag() ? n.real(0.001, 1) : 0;
  wish.settings.byRole = n.flag();
  wish.fileEach = n.flag();
  wish.cutterMm = n.real(0, 6);
  return wish;
}

void decide(job::Job& job, Numbers& n) {
  if (n.flag()) job.stock = job::Stock{n.real(1, 900), n.real(1, 900), {n.real(-99, 99), n.real(-99, 99)}};
  if (n.flag()) job.file = randomWish(n);
  refineSome(job, n);
  job.origin = n.flag() ? "found on the beach, no rights" : "";
  job.size = {static_cast<job::SizeWish::Of>(n.whole(0, 4)), n.real(1, 500)};
  job.mend.settings.gapMm = n.real(0, 2);
  job.mend.settings.speckMm = n.real(0, 2);
  for (int k = n.whole(0, 4); k > 0; --k) {
    job.mend.steps.push_back({static_cast<mend::MendStep::What>(n.whole(0, 4)),
                              static_cast<mend::FindingKind>(n.whole(0, static_cast<int>(mend::kFindingKinds) - 1)),
                              n.place(1e5, {}), n.flag() ? "join" : "drop", static_cast<OutlineId>(n.whole(0, 9)),
                              static_cast<OutlineId>(n.whole(0, 9)), n.flag() ? n.real(0, 1e6) : 0});
  }
}

job::Job randomJob(unsigned seed) {
  Numbers n(seed);
  if (n.flag()) {
    job::Job job = job::jobOn(randomDrawing(n), "plate.dxf");
    decide(job, n);
    return job;
  }
  picture::Picture picture = pictureOf(noisy(drawn(n.whole(3, 40), n.whole(3, 40), disc(8, 8, 5)), n.real(0, 30)));
  picture.name = "flag.png";
  picture.dotsPerInch = n.flag() ? 0 : n.real(50, 600);
  job::Job job = job::jobOn(picture);
  decide(job, n);
  job.trace.lightIsInk = n.flag();
  if (n.flag()) job.trace.threshold = n.whole(0, 255);
  job.trace.tolerancePx = n.real(0.05, 5);
  job.trace.cornerReadiness = n.whole(0, 100);
  job.trace.method = static_cast<trace::TraceMethod>(n.whole(0, 2));
  job.trace.strokes = {n.flag() ? std::optional<double>(n.real(1, 99)) : std::nullopt,
                       n.real(0, 30),
                       n.flag() ? trace::StrokeEnds::Pen : trace::StrokeEnds::Ink,
                       {}};
  if (n.flag()) job.trace.strokes.switched = {{{n.real(0, 9), n.real(0, 9)}, n.flag()}, {{1, n.real(0, 9)}}};
  if (n.flag()) job.preparation = {{picture::Thicken{n.real(-3, 3)}, n.flag()}, {picture::Turn{n.real(-180, 180)}}};
  job.colours.on = n.flag();
  if (n.flag()) job.colours.count = n.whole(2, colour::kMostInks);
  if (n.flag())
    job.colours.steps = {
        colour::stepFor(colour::MergeInks{0, static_cast<std::size_t>(n.whole(0, colour::kMostInks - 1))})};
  return job;
}

std::vector<std::byte> bytes(const std::string& text) {
  const auto all = std::as_bytes(std::span(text));
  return {all.begin(), all.end()};
}

Drawing drawingWith(std::vector<Path> paths, double width, double height) {
  Drawing drawing;
  setPaths(drawing, std::move(paths));
  drawing.pageWidth = width;
  drawing.pageHeight = height;
  return drawing;
}

}  // namespace

namespace {

/// A job on a drawing as an older version saved it: its drawing under a name of that time, decisions about findings,
/// and what else stood in its settings.
job::Job jobOfVersion(int version, const char* part, const std::string& drawing, const std::string& decisions,
                      const std::string& more) {
  QTemporaryDir folder;
  const std::filesystem::path file = folder.filePath("old.snugrim").toStdString();
  const std::string settings =
      R"({"snugrim-job": )" + std::to_string(version) +
      R"(, "picture": {"name": "plate.dxf", "dots-per-inch": 0}, "origin": "", "preparation": [],
            "trace": {"light-is-ink": false, "tolerance-px": 0.35, "min-area-px2": 4, "corners": 50}, )" +
      more + R"("mend": {"gap-mm": 0.5, "speck-mm": 0.3, "steps": )" + decisions +
      R"(}, "size": {"of": "resolution", "value": 0}})";
  io::writeZip(file, {{"job.json", bytes(settings)}, {part, bytes(drawing)}});
  return io::loadJob(file);
}

}  // namespace

class TestJobRoundTrip : public QObject {
  Q_OBJECT

 private slots:
  void whatIsSavedIsOpenedTheSame() {
    QTemporaryDir folder;
    const std::filesystem::path file = folder.filePath("a.snugrim").toStdString();
    const unsigned first = qEnvironmentVariableIsSet("RIM_SEED") ? qEnvironmentVariable("RIM_SEED").toUInt() : 1;
    for (unsigned seed = first; seed < first + 150; ++seed) {
      const job::Job job = randomJob(seed);
      io::saveJob(job, file);
      const job::Job back = io::loadJob(file);
      const QByteArray where = "RIM_SEED=" + QByteArray::number(seed);
      QVERIFY2((back.drawing != nullptr) == (job.drawing != nullptr), where.constData());
      if (job.drawing) {
        QVERIFY2(back.drawing->outlines == job.drawing->outlines, where.constData());
        QVERIFY2(back.drawing->layers == job.drawing->layers, where.constData());
        QVERIFY2(
            back.drawing->pageWidth == job.drawing->pageWidth && back.drawing->pageHeight == job.drawing->pageHeight,
            where.constData());
        QVERIFY2(job::hasOutlines(back) || !back.mend.steps.empty() || !back.refine.empty(), where.constData());
      } else {
        QVERIFY2(cv::norm(*back.original.bgr, *job.original.bgr, cv::NORM_INF) == 0, where.constData());
        QVERIFY2(back.preparation == job.preparation && back.colours == job.colours && back.trace == job.trace,
                 where.constData());
      }
      QVERIFY2(same(back.refine, job.refine), where.constData());
      QVERIFY2(back.stock == job.stock && back.file == job.file, where.constData());
      QVERIFY2(back.size == job.size && back.origin == job.origin, where.constData());
      QVERIFY2(back.mend.steps == job.mend.steps && back.mend.settings.gapMm == job.mend.settings.gapMm,
               where.constData());
    }
  }

  void drawingsWhereverTheyLieAreOpenedAgain_data() {
    QTest::addColumn<QPointF>("at");
    QTest::addColumn<double>("size");
    QTest::newRow("wholly below and left of the origin") << QPointF(-300, -200) << 50.0;
    QTest::newRow("in metres, far from the origin") << QPointF(4.5e8, 5.3e8) << 25'000.0;
    QTest::newRow("a hundredth of a millimetre") << QPointF(0, 0) << 0.01;
  }
  void drawingsWhereverTheyLieAreOpenedAgain() {
    QFETCH(QPointF, at);
    QFETCH(double, size);
    QTemporaryDir folder;
    const std::filesystem::path file = folder.filePath("a.snugrim").toStdString();
    const Point low{at.x(), at.y()};
    Path square{low, {}, true};
    for (const Point corner : {Point{1, 0}, Point{1, 1}, Point{0, 1}, Point{0, 0}})
      square.segments.push_back(Segment::line(low + corner * size));
    const Drawing drawing = drawingWith({square}, std::max(0.0, low.x + size), std::max(0.0, low.y + size));
    io::saveJob(job::jobOn(drawing, "a.dxf"), file);
    const job::Job loaded = io::loadJob(file);
    QVERIFY(loaded.drawing->outlines == drawing.outlines);
    // The outlines for other programs can be read, too, and have their size.
    const io::ZipParts parts = io::readZip(file, {"outlines.svg"}, 1'000'000);
    const std::vector<std::byte>& bytes = parts.at("outlines.svg");
    const io::ReadResult read =
        io::readDrawing({reinterpret_cast<const char*>(bytes.data()), bytes.size()}, "outlines.svg");
    QVERIFY(std::abs(boxOf(pathsOf(read.drawing)).width() / size - 1) < 1e-3);
  }

  void manyOutlinesOnOneLayerAreOpenedAgain() {
    // More than the 10 MB of text that an XML reader takes for one attribute unless it is told otherwise.
    Drawing drawing = drawingWith({}, 1000, 1000);
    Numbers n(4);
    std::vector<Path> paths;
    for (int i = 0; i < 30'000; ++i) paths.push_back(randomPath(n, 500, {500, 500}));
    setPaths(drawing, std::move(paths));
    QTemporaryDir folder;
    const std::filesystem::path file = folder.filePath("a.snugrim").toStdString();
    io::saveJob(job::jobOn(drawing, "a.dxf"), file);
    const job::Job loaded = io::loadJob(file);
    QVERIFY(loaded.drawing->outlines == drawing.outlines);
    // Its outlines for other programs, read without the arcs that are rounded most.
    Drawing lines = drawing;
    for (Outline& outline : lines.outlines) {
      Path path = outline.path();
      for (Segment& s : path.segments) s = Segment::line(s.end);
      outline = outline.with(std::move(path));
    }
    std::string svg = io::svg::svgText(lines);
    while (svg.size() < 11'000'000) {
      for (std::size_t i = 0; i < 10'000; ++i) lines.outlines.push_back(lines.outlines[i]);
      svg = io::svg::svgText(lines);
    }
    QVERIFY(!io::readDrawing(svg, "a.svg").drawing.outlines.empty());
  }

  /// A job of version 1 kept its drawing as SVG.
  void jobsOfTheFirstVersionAreOpened() {
    const job::Job job = jobOfVersion(
        1, "drawing.svg",
        R"(<svg xmlns="http://www.w3.org/2000/svg" width="30mm" height="20mm" viewBox="0 0 30 20"><path d="M0,0 L10,0 L10,5 Z"/></svg>)",
        "[]", "");
    QCOMPARE(job.drawing->outlines.size(), 1U);
    QCOMPARE(job.mend.settings.speckMm, 0.3);
  }

  /// A job of version 2 knew no ids: decisions are about places alone.
  void jobsOfTheSecondVersionAreOpened() {
    const job::Job job = job::workedOut(jobOfVersion(
        2, "drawing.json",
        R"({"page": [30, 20], "layers": [{"name": "cut", "colour": "#000000"}, {"name": "fold", "colour": "#ff0000"}],
            "paths": [{"closed": false, "layer": 0, "d": "0 0 L 10 0"}, {"closed": false, "layer": 0, "d": "10.3 0 L 20 0"},
                      {"closed": true, "layer": 1, "d": "0 5 A 4 5 1 A 0 5 1"}]})",
        R"([{"what": "one", "kind": "open-end", "x": 10.15, "y": 0, "repair": "join"}])", ""));
    QCOMPARE(placesOf(*job.drawing).size(), 3U);
    QVERIFY(job.drawing->outlines[2].layer == 1 && job.refine.empty());
    QVERIFY2(job.lost.empty(), "its decision is found by its place");
    QCOMPARE(job::outlinesOf(job)->outlines.size(), 2U);
  }

  /// A job of version 3 knew one width of a stroke, and no strokes in pictures.
  void jobsOfTheThirdVersionAreOpened() {
    const job::Job job = jobOfVersion(
        3, "drawing.json",
        R"({"page": [30, 20], "layers": [], "paths": [{"closed": false, "d": "0 0 L 10 0", "stroke-width": 2}]})", "[]",
        R"("refine": [{"do": "thicken", "mm": 0, "joins": "round", "tips": "round"}],)");
    QVERIFY((job.drawing->outlines.front().stroke == StrokeWidth{2, 2, 2}));
    QVERIFY(job.trace.method == trace::TraceMethod::Outline && job.trace.strokes == trace::StrokeSettings());
    QCOMPARE(job.refine.size(), 1U);
  }

  /// A job of version 4 knew strokes, and nothing drawn by hand but what was moved or made exact.
  void jobsOfTheFourthVersionAreOpened() {
    const job::Job job = jobOfVersion(
        4, "drawing.json",
        R"({"page": [30, 20], "layers": [], "paths": [{"closed": false, "d": "0 0 L 10 0", "stroke": {"usual": 2, "least": 1, "most": 3}}]})",
        "[]",
        R"("refine": [{"do": "replace", "kind": "moved", "outlines": [{"id": "1f", "x": 5, "y": 0, "w": 10, "h": 0,
           "area": 0, "closed": false, "d": "1 1 L 11 1"}]}],)");
    QCOMPARE(job.refine.size(), 1U);
    QCOMPARE(std::get<refine::Replace>(job.refine[0]).outlines[0].path.start, (Point{1, 1}));
  }

  /// A job of version 5 knew a file that is wanted, but no stock.
  void jobsOfTheFifthVersionAreOpened() {
    const job::Job job = jobOfVersion(
        5, "drawing.json", R"({"page": [30, 20], "layers": [], "paths": [{"closed": false, "d": "0 0 L 10 0"}]})", "[]",
        R"("file": {"format": "svg", "unit": "mm", "origin": "centre", "note": false, "strokes-as-drawn": false, "dpi": 300,
           "file-each": true, "margin": 2},)");
    QVERIFY(!job.stock);
    QCOMPARE(job.file->settings.origin, job::OriginAt::Centre);
    QVERIFY(!job.file->settings.onStock && !job.file->settings.ofStock && job.file->cutterMm == 0);
  }

  /// A job of version 6 knew a stock and layers, but nothing of groups, and less of files.
  void jobsOfTheSixthVersionAreOpened() {
    const job::Job job = jobOfVersion(
        6, "drawing.json", R"({"page": [30, 20], "layers": [], "paths": [{"closed": false, "d": "0 0 L 10 0"}]})", "[]",
        R"("stock": {"width": 90, "height": 60, "x": 1, "y": 2}, "refine": [{"do": "hide-layer", "layer": "fold"}],
           "file": {"format": "svg", "unit": "mm", "origin": "drawing", "note": false, "strokes-as-drawn": false, "dpi": 300,
           "file-each": false, "of-stock": true, "on-stock": true, "cutter": 2},)");
    QCOMPARE(job.stock->widthMm, 90.0);
    QVERIFY(job.file->settings.onStock && job.file->settings.element == job::SvgElement::Layer &&
            !job.file->settings.byRole);
    QCOMPARE(job.file->settings.toleranceMm, 0.0);
    QCOMPARE(job.refine.size(), 1U);
  }

  void stocksThatAreNoneAreRefused() {
    for (const char* stock : {"3", "{}", R"({"width": 0, "height": 5, "x": 0, "y": 0})",
                              R"({"width": 5, "height": 5, "x": 1e300, "y": 0})"}) {
      const std::string more = R"("stock": )" + std::string(stock) + ",";
      QVERIFY_THROWS_EXCEPTION(
          InputError, jobOfVersion(6, "drawing.json", R"({"page": [30, 20], "layers": [], "paths": []})", "[]", more));
    }
  }

  void damagedDrawingsAreTold_data() {
    QTest::addColumn<QByteArray>("from");
    QTest::addColumn<QByteArray>("to");
    QTest::newRow("a letter for a number") << QByteArray("L 10 0") << QByteArray("L x 0");
    QTest::newRow("a kind that is none") << QByteArray("L 10 0") << QByteArray("Q 10 0");
    QTest::newRow("infinite") << QByteArray("L 10 0") << QByteArray("L 1e400 0");
    QTest::newRow("too far") << QByteArray("L 10 0") << QByteArray("L 1e12 0");
    QTest::newRow("not closed") << QByteArray("L 0 0\"") << QByteArray("L 0 1\"");
    QTest::newRow("no id") << QByteArray("\"id\":\"") << QByteArray("\"id\":\"x");
    QTest::newRow("no page") << QByteArray("\"page\"") << QByteArray("\"rage\"");
    QTest::newRow("paths that are none") << QByteArray("\"paths\":[") << QByteArray("\"paths\":3,\"x\":[");
  }
  void damagedDrawingsAreTold() {
    QFETCH(QByteArray, from);
    QFETCH(QByteArray, to);
    QTemporaryDir folder;
    const std::filesystem::path file = folder.filePath("a.snugrim").toStdString();
    const Path triangle{{0, 0}, {Segment::line({10, 0}), Segment::line({5, 5}), Segment::line({0, 0})}, true};
    io::saveJob(job::jobOn(drawingWith({triangle}, 10, 5), "a.dxf"), file);
    io::ZipParts parts = io::readZip(file, {"drawing.json", "job.json"}, 1'000'000);
    QByteArray text(reinterpret_cast<const char*>(parts["drawing.json"].data()),
                    static_cast<qsizetype>(parts["drawing.json"].size()));
    QVERIFY2(text.contains(from), text.constData());
    text.replace(from, to);
    const auto all = std::as_bytes(std::span(text.constData(), static_cast<std::size_t>(text.size())));
    parts["drawing.json"].assign(all.begin(), all.end());
    io::writeZip(file, partsToWrite(parts));
    QVERIFY_THROWS_EXCEPTION(InputError, io::loadJob(file));
  }
};

RIM_TEST(TestJobRoundTrip)
#include "tst_job_round_trip.moc"
