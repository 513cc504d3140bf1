// SPDX-License-Identifier: GPL-3.0-or-later
// Any bytes as a project: as a file (the first byte even) they are opened or refused in words; as the text of
// an export (odd) likewise, and what is understood is written again with the same meaning.
#include "service/project_text.h"

#include <QCoreApplication>
#include <QFile>

#include <cstdint>
#include <cstdlib>
#include <unistd.h>

namespace
{

using namespace inchpeg;

void openAsFile(std::string_view bytes)
{
    static const QString path =
        QStringLiteral("/dev/shm/inchpeg-fuzz-%1.inchpeg").arg(static_cast<qlonglong>(::getpid()));
    for (const char *suffix : {"", "-wal", "-shm"})
        QFile::remove(path + QLatin1String(suffix));
    QFile file(path);
    if (!file.open(QIODevice::WriteOnly))
        std::abort();
    file.write(bytes.data(), static_cast<qint64>(bytes.size()));
    file.close();
    Result<ProjectFile> project = ProjectFile::open(path.toStdString());
    if (!project) {
        if (project.error().message.empty())
            std::abort();
        return;
    }
    static_cast<void>(project->verify());
    const Result<std::vector<StudyHeader>> studies = project->studies();
    for (std::size_t i = 0; studies && i < studies->size(); ++i)
        static_cast<void>(project->loadStudy((*studies)[i].id));
    static_cast<void>(project->contents());
}

void readAsText(std::string_view text)
{
    const Result<ParsedProject> parsed = projectFromText(text);
    if (!parsed) {
        if (parsed.error().message.empty())
            std::abort();
        return;
    }
    const auto path = [&](const RawFileInfo &file) { return parsed->rawPaths.at(file.id); };
    const std::string written = projectText(parsed->contents, path);
    const Result<ParsedProject> again = projectFromText(written);
    if (!again || projectText(again->contents, path) != written)
        std::abort();
}

} // namespace

extern "C" int LLVMFuzzerInitialize(int *argc, char ***argv)
{
    static QCoreApplication application(*argc, *argv);
    return 0;
}

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t *data, std::size_t size)
{
    if (size == 0)
        return 0;
    const std::string_view bytes(reinterpret_cast<const char *>(data + 1), size - 1);
    if (data[0] % 2 == 0)
        openAsFile(bytes);
    else
        readAsText(bytes);
    return 0;
}
