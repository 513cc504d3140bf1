// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/write_report.h"

#include "core/report/html_report.h"
#include "disk/disk.h"
#include "disk/file_bytes.h"
#include "report/drawing_painter.h"
#include "report/workbook_report.h"

#include <fmt/format.h>

#include <unistd.h>

namespace inchpeg
{

namespace
{

constexpr double kPngScale = 1.6; ///< 1200 units become 1920 picture points

Status saveBytes(const std::string &path, const QByteArray &bytes)
{
    return writeFileBytes(path, std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size())));
}

/// The workbook's library writes to a path alone: beside the wanted one, and then in its place.
Status saveWorkbook(const Report &report, const std::string &path)
{
    const std::string partial = fmt::format("{}.{}.part", path, ::getpid());
    Status status = diskFault(DiskCall::Write, partial) ? Status(Error{ErrorCode::Storage, {}, {}})
                                                        : writeWorkbookReport(report, partial);
    if (!status)
        status = Error{ErrorCode::Storage,
                       fmt::format("{}: cannot be written; is the disk full, or the folder not yours?", path),
                       {}};
    else
        status = renameFile(partial, path);
    if (!status) [[maybe_unused]]
        const Status removed = removeFile(partial);
    return status;
}

bool endsWith(const std::string &path, const char *ending)
{
    return QString::fromStdString(path).endsWith(QLatin1String(ending), Qt::CaseInsensitive);
}

} // namespace

Status writeReport(const Report &report, const std::string &path, Paper paper, const std::stop_token &stop,
                   const PageProgress &progress)
{
    if (endsWith(path, ".html") || endsWith(path, ".htm"))
        return saveBytes(path, QByteArray::fromStdString(htmlReport(report)));
    if (endsWith(path, ".xlsx"))
        return saveWorkbook(report, path);
    if (!endsWith(path, ".pdf"))
        return invalidArgument(fmt::format("{}: end the name with .pdf, .html or .xlsx", path));
    return writeReport(report, PagedReport(report, paper), path, stop, progress);
}

Status writeReport(const Report &report, const PagedReport &pages, const std::string &path,
                   const std::stop_token &stop, const PageProgress &progress)
{
    if (!endsWith(path, ".pdf")) // needs no pages
        return writeReport(report, path, Paper::A4, stop, progress);
    const QByteArray pdf = pdfOf(pages, report.title, stop, progress);
    if (stop.stop_requested())
        return Error{ErrorCode::Cancelled, "the report was stopped; nothing was written", {}};
    return saveBytes(path, pdf);
}

Status writeDrawing(const Drawing &drawing, const std::string &title, const std::string &path)
{
    if (endsWith(path, ".svg"))
        return saveBytes(path, QByteArray::fromStdString(svgText(drawing, title)));
    if (endsWith(path, ".png"))
        return saveBytes(path, drawingPng(drawing, kPngScale));
    return invalidArgument(fmt::format("{}: end the name with .png or .svg", path));
}

} // namespace inchpeg
