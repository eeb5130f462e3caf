/** The graph library answers its own messages; it only has to be there. */
import 'elkjs/lib/elk-worker.min.js';
