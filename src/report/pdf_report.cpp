// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/pdf_report.h"

#include "core/report/html_report.h"
#include "report/drawing_painter.h"
#include "report/report_pictures.h"

#include <QAbstractTextDocumentLayout>
#include <QBuffer>
#include <QPageSize>
#include <QPainter>
#include <QPdfWriter>
#include <QTextBlock>
#include <QTextCursor>
#include <QTextDocument>
#include <QTextTable>

#include <cmath>
#include <limits>

namespace inchpeg
{

namespace
{

constexpr double kInch_mm = 25.4;
constexpr double kDotsPer_mm = 96.0 / kInch_mm; ///< of the document, whatever the screen
constexpr double kMargin_mm = 14.0;
constexpr double kFoot_mm = 6.0;            ///< room below the text for foot and page number
constexpr double kLeastAfterHeading = 60.0; ///< dots of what follows on the same page
constexpr int kTextPixels = 11;
constexpr int kFootPixels = 9;
constexpr int kPdfResolution = 600;

QSizeF paperSize_mm(Paper paper)
{
    return paper == Paper::A4 ? QSizeF(210.0, 297.0) : QSizeF(215.9, 279.4);
}

QSizeF textSize_dots(Paper paper)
{
    const QSizeF size = paperSize_mm(paper);
    return QSizeF(size.width() - 2.0 * kMargin_mm, size.height() - 2.0 * kMargin_mm - kFoot_mm) * kDotsPer_mm;
}

constexpr double kBullet = 12.0; ///< from the bullet to the text
constexpr const char *kPaperStyle =
    "table { font-size: 9px; border-collapse: collapse; } th { font-weight: bold; }"
    "table.ruled th { border-bottom: 1px solid #1a1a1a; padding-right: 6px; }"
    "table.ruled td { border-bottom: 0.5px solid #d5d8dc; padding-right: 6px; }";

/// How a block of text looks, in dots.
struct Look {
    int pixels = 11;
    bool isBold = false;
    QColor colour{0x1a1a1a};
    double above = 0.0;
    double below = 4.0;
    double left = 0.0;
    double hanging = 0.0; ///< the first line begins so much before the others
    bool isHeading = false;
    bool hasCaption = false; ///< the next block belongs to this one
};

constexpr int kIsHeading = QTextFormat::UserProperty + 2;
constexpr int kHasCaption = QTextFormat::UserProperty + 3;

const Look kKind{11, false, QColor(0x5f6368), 0.0, 0.0};
const Look kTitle{19, true, QColor(0x1a1a1a), 0.0, 6.0};
const Look kSection{14, true, QColor(0x1a1a1a), 16.0, 5.0, 0.0, 0.0, true};
const Look kTableTitle{11, true, QColor(0x1a1a1a), 8.0, 3.0, 0.0, 0.0, true};
const Look kLead{12, true};
const Look kParagraph{};
const Look kItem{11, false, QColor(0x1a1a1a), 0.0, 2.0, kBullet, kBullet};
const Look kNote{10, false, QColor(0x5f6368), 1.0, 6.0};

/// Puts the blocks of a report one below the other into a text document.
class PageWriter
{
public:
    PageWriter(QTextDocument &document, ReportPictures &pictures) : m_cursor(&document), m_pictures(pictures)
    {
    }

    void write(const Report &report)
    {
        text(report.kind, kKind);
        text(report.title, kTitle);
        std::string facts = "<table width=\"100%\" cellspacing=\"0\" cellpadding=\"2\">";
        for (const ReportFact &fact : report.facts)
            facts += "<tr><td width=\"24%\" style=\"color:#5f6368\">" + escapedMarkup(fact.name) +
                     "</td><td>" + escapedMarkup(fact.text) + "</td></tr>";
        insert(facts + "</table>");
        for (const ReportSection &section : report.sections) {
            text(section.heading, kSection);
            for (const ReportBlock &block : section.blocks)
                std::visit([this](const auto &one) { put(one); }, block);
        }
    }

private:
    void put(const ReportText &one)
    {
        switch (one.kind) {
        case TextKind::Lead:
            text(one.text, kLead);
            return;
        case TextKind::Item:
            text("•\t" + one.text, kItem);
            return;
        case TextKind::Caution:
            text("Mind: ", kLead);
            m_cursor.insertText(QString::fromStdString(one.text), characters(kParagraph));
            return;
        case TextKind::Paragraph:
            text(one.text, kParagraph);
            return;
        }
    }
    void put(const ReportTable &table)
    {
        text(table.title, kTableTitle);
        insert(tableHtml(table));
    }
    void put(const ReportPicture &picture)
    {
        Look look;
        look.above = 4.0;
        look.hasCaption = !picture.caption.empty();
        startBlock(look);
        m_cursor.insertText(QString(QChar::ObjectReplacementCharacter), m_pictures.add(picture.drawing));
        if (!picture.caption.empty())
            text(picture.caption, kNote);
    }

    static QTextCharFormat characters(const Look &look)
    {
        QTextCharFormat format;
        format.setFont(reportFont(look.pixels, look.isBold));
        format.setForeground(look.colour);
        return format;
    }
    void startBlock(const Look &look)
    {
        QTextBlockFormat format;
        format.setTopMargin(look.above);
        format.setBottomMargin(look.below);
        format.setLeftMargin(look.left);
        format.setTextIndent(-look.hanging);
        if (look.hanging > 0.0)
            format.setTabPositions({QTextOption::Tab(look.hanging, QTextOption::LeftTab)});
        if (look.isHeading)
            format.setProperty(kIsHeading, true);
        if (look.hasCaption)
            format.setProperty(kHasCaption, true);
        m_cursor.movePosition(QTextCursor::End);
        if (m_cursor.atStart())
            m_cursor.setBlockFormat(format);
        else
            m_cursor.insertBlock(format, characters(look));
    }
    void text(const std::string &words, const Look &look)
    {
        startBlock(look);
        m_cursor.insertText(QString::fromStdString(words), characters(look));
    }
    void insert(const std::string &html)
    {
        Look gap; // a table begins in a block of its own, which is left as low as can be
        gap.pixels = 1;
        gap.below = 0.0;
        startBlock(gap);
        m_cursor.insertHtml(QString::fromStdString(html));
        m_cursor.movePosition(QTextCursor::End);
    }

    QTextCursor m_cursor;
    ReportPictures &m_pictures;
};

/// Where what must stand on the page of a block ends: of a heading some of what follows, which may be a
/// table's low first block or a picture that finds no room here; of a picture its caption.
double endOfWhatBelongs(const QTextBlock &block, const QAbstractTextDocumentLayout &layout)
{
    const QRectF place = layout.blockBoundingRect(block);
    if (block.blockFormat().hasProperty(kHasCaption))
        return layout.blockBoundingRect(block.next()).bottom();
    double next = place.bottom();
    for (QTextBlock after = block.next(); after.isValid() && next < place.bottom() + kLeastAfterHeading;
         after = after.next())
        next = layout.blockBoundingRect(after).top() + 1.0;
    return std::max(next, place.bottom() + kLeastAfterHeading);
}

/// Headings and pictures that would be parted from what belongs to them by the end of their page. One that
/// begins a new page pushes what follows down; that is reckoned with, though not how rows fall then.
std::vector<QTextBlock> partedFromTheNext(const QTextDocument &document, double page)
{
    const QAbstractTextDocumentLayout &layout = *document.documentLayout();
    std::vector<QTextBlock> found;
    double pushed = 0.0;
    for (QTextBlock block = document.begin(); block.isValid(); block = block.next()) {
        const bool isHeading = block.blockFormat().hasProperty(kIsHeading);
        if (!isHeading && !block.blockFormat().hasProperty(kHasCaption))
            continue;
        const double top = layout.blockBoundingRect(block).top() + pushed;
        const double end = endOfWhatBelongs(block, layout) + pushed;
        const double onPage = std::fmod(top, page);
        const bool isParted = std::floor(end / page) != std::floor(top / page);
        const bool fitsOnOne = isHeading || end - top <= page;
        if (onPage > 0.0 && isParted && fitsOnOne) {
            found.push_back(block);
            pushed += page - onPage;
        }
    }
    return found;
}

/// A heading is never the last of its page, and a caption stands with its picture.
void keepTogether(QTextDocument &document, double page)
{
    constexpr int kMostPasses = 4; // each lays the whole out again
    for (int pass = 0; pass < kMostPasses; ++pass) {
        const std::vector<QTextBlock> last = partedFromTheNext(document, page);
        if (last.empty())
            return;
        QTextCursor all(&document);
        all.beginEditBlock();
        for (const QTextBlock &block : last) {
            QTextBlockFormat format = block.blockFormat();
            format.setPageBreakPolicy(QTextFormat::PageBreak_AlwaysBefore);
            QTextCursor(block).setBlockFormat(format);
        }
        all.endEditBlock();
    }
}

/// A row that would go over the end of a page begins the next one.
void keepRows(QTextDocument &document, double page)
{
    const QAbstractTextDocumentLayout &layout = *document.documentLayout();
    for (QTextFrame *frame : document.rootFrame()->childFrames()) {
        auto *table = qobject_cast<QTextTable *>(frame);
        for (int row = 0; table != nullptr && row < table->rows(); ++row) {
            double top = std::numeric_limits<double>::max();
            double bottom = 0.0;
            for (int column = 0; column < table->columns(); ++column) {
                const QTextTableCell cell = table->cellAt(row, column);
                top = std::min(top, layout.blockBoundingRect(cell.firstCursorPosition().block()).top());
                bottom =
                    std::max(bottom, layout.blockBoundingRect(cell.lastCursorPosition().block()).bottom());
            }
            const double room = page - std::fmod(top, page);
            if (bottom - top <= room + 0.5 || bottom - top > page / 2.0) // longer than half a page: let it
                continue;
            QTextCursor whole(&document);
            whole.beginEditBlock(); // each change by itself would lay the table out again
            for (int column = 0; column < table->columns(); ++column) {
                QTextTableCell cell = table->cellAt(row, column);
                QTextTableCellFormat format = cell.format().toTableCellFormat();
                format.setTopPadding(format.topPadding() + room);
                cell.setFormat(format);
            }
            whole.endEditBlock();
        }
    }
}

} // namespace

struct PagedReport::Parts {
    Report report;
    Paper paper = Paper::A4;
    ReportPictures pictures{textSize_dots(Paper::A4).width()};
    QTextDocument document;

    Parts(Report made, Paper on) : report(std::move(made)), paper(on), pictures(textSize_dots(on).width())
    {
        document.setDefaultFont(reportFont(kTextPixels));
        document.setDefaultStyleSheet(QLatin1String(kPaperStyle));
        document.setDocumentMargin(0.0);
        document.setUndoRedoEnabled(false);
        document.documentLayout()->registerHandler(ReportPictures::kObject, &pictures);
        document.setPageSize(textSize_dots(paper));
        QTextCursor whole(&document);
        whole.beginEditBlock(); // laid out once, at its end
        PageWriter(document, pictures).write(report);
        whole.endEditBlock();
        keepTogether(document, document.pageSize().height());
        keepRows(document, document.pageSize().height());
    }
};

std::optional<Paper> paperFrom(std::string_view name)
{
    if (name == "A4")
        return Paper::A4;
    if (name == "Letter")
        return Paper::Letter;
    return std::nullopt;
}

PagedReport::PagedReport(Report report, Paper paper)
    : m_parts(std::make_unique<Parts>(std::move(report), paper))
{
}
PagedReport::~PagedReport() = default;
PagedReport::PagedReport(PagedReport &&) noexcept = default;
PagedReport &PagedReport::operator=(PagedReport &&) noexcept = default;

int PagedReport::pageCount() const
{
    return m_parts->document.pageCount();
}

QSizeF PagedReport::pageSize_mm() const
{
    return paperSize_mm(m_parts->paper);
}

void PagedReport::paintPage(QPainter &painter, int page) const
{
    const QSizeF size = textSize_dots(m_parts->paper);
    const QRectF shown(0.0, page * size.height(), size.width(), size.height());
    painter.save();
    painter.translate(kMargin_mm, kMargin_mm);
    painter.scale(1.0 / kDotsPer_mm, 1.0 / kDotsPer_mm);
    painter.setFont(reportFont(kFootPixels));
    painter.setPen(QColor(0x5f6368));
    const QRectF foot(0.0, size.height() + 6.0, size.width(), 16.0);
    painter.drawText(foot, Qt::AlignLeft, QString::fromStdString(m_parts->report.foot));
    painter.drawText(foot, Qt::AlignRight, QStringLiteral("%1 / %2").arg(page + 1).arg(pageCount()));
    painter.translate(0.0, -shown.top());
    painter.setClipRect(shown, Qt::IntersectClip);
    QAbstractTextDocumentLayout::PaintContext context;
    context.palette.setColor(QPalette::Text, QColor(0x1a1a1a));
    context.clip = shown;
    m_parts->document.documentLayout()->draw(&painter, context);
    painter.restore();
}

std::vector<QPicture> pagePictures(const PagedReport &pages)
{
    std::vector<QPicture> pictures;
    for (int page = 0; page < pages.pageCount(); ++page) {
        QPicture picture;
        QPainter painter(&picture);
        pages.paintPage(painter, page);
        painter.end();
        pictures.push_back(picture);
    }
    return pictures;
}

QByteArray pdfOf(const PagedReport &pages, const std::string &title, const std::stop_token &stop,
                 const PageProgress &progress)
{
    QBuffer buffer;
    buffer.open(QIODevice::WriteOnly);
    QPdfWriter writer(&buffer);
    writer.setResolution(kPdfResolution);
    writer.setPageSize(QPageSize(pages.pageSize_mm(), QPageSize::Millimeter));
    writer.setPageMargins(QMarginsF(0, 0, 0, 0));
    writer.setTitle(QString::fromStdString(title));
    writer.setCreator(QStringLiteral("Inch Peg"));
    QPainter painter(&writer);
    painter.scale(kPdfResolution / kInch_mm, kPdfResolution / kInch_mm);
    for (int page = 0; page < pages.pageCount(); ++page) {
        if (stop.stop_requested())
            return {};
        if (page > 0)
            writer.newPage();
        pages.paintPage(painter, page);
        if (progress)
            progress(page + 1, pages.pageCount());
    }
    painter.end();
    return buffer.data();
}

} // namespace inchpeg
